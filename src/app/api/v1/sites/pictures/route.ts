import { changing } from "@/app/api/answer";
import { madeAnew, type Picture } from "@/data/pictures";
import { addSitePicture, sitePictureSchema } from "@/data/site-places";

export function POST(request: Request) {
  return changing(
    request,
    sitePictureSchema,
    (db, doing, input: { site: string; picture: Picture }) => addSitePicture(db, doing, input),
    async ({ site, dataUrl }) => ({ site, picture: await madeAnew(dataUrl) }),
  );
}
