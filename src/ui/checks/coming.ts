import { type ComponentType, lazy } from "react";

/**
 * A picture fetched when it is first drawn. Whoever draws it gives it a place of its own to wait in (`Suspense`): else the sheet around it
 * would wait, and lose the keyboard.
 */
export const coming = <Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> =>
  lazy(async () => ({ default: await load() })) as unknown as ComponentType<Props>;
