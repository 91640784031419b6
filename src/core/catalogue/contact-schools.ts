/** How a shop wants reel and bedknife to stand to each other; all three are practised. */
export const CONTACT_SCHOOLS = ["no-contact", "light-contact", "firm-contact"] as const;
export type ContactSchool = (typeof CONTACT_SCHOOLS)[number];
