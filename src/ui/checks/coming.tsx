import { type ComponentType, lazy, Suspense } from "react";

/** A picture fetched when it is first drawn. Its place stays empty meanwhile: the sheet around it neither waits nor loses the keyboard. */
export function coming<Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  const Picture = lazy(async () => ({ default: await load() })) as unknown as ComponentType<Props>;
  return function Coming(props: Props) {
    return (
      <Suspense fallback={null}>
        <Picture {...props} />
      </Suspense>
    );
  };
}
