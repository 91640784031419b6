import { changing } from "@/app/api/answer";
import { addSitePicture, sitePictureSchema } from "@/data/machine/site-places";
import { madeAnew, type Picture } from "@/data/store/pictures";

export function POST(request: Request) {
  return changing(
    request,
    sitePictureSchema,
    (db, doing, input: { site: string; picture: Picture }) => addSitePicture(db, doing, input),
    async ({ site, dataUrl }) => ({ site, picture: await madeAnew(dataUrl) }),
  );
}
