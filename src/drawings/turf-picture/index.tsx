export function TurfPicture({ symptom }: { symptom: string }) {
  return <div className="dye h-16" data-symptom={symptom} />;
}
