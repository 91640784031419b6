import type { Property } from "@/core/checks/unit-match";

/** How a property is called. */
export const PROPERTY_WORDS: Record<Property, string> = {
  blades: "Blades",
  diameterMetres: "Reel diameter",
  knife: "Bedknife",
  knifeMetres: "Knife thickness",
  knifeLeftMetres: "Front face left",
  frontRoller: "Front roller",
  rearRoller: "Rear roller",
  hole: "Bracket hole",
  facing: "Bracket faces",
  groomer: "Groomer or brush",
  benchMetres: "Bench height",
};
