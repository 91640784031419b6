/** Longest side a kept photograph has; belt path and washers are still plain on it. */
const LONGEST_PIXELS = 1280;
const MOST_LETTERS = 200_000;

/** A file as a small JPEG in a data address; `undefined` where it is no picture this browser can read. */
export async function shrunkPicture(file: Blob): Promise<string | undefined> {
  try {
    const bitmap = await createImageBitmap(file);
    const scale = Math.min(1, LONGEST_PIXELS / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    for (const quality of [0.8, 0.6, 0.4, 0.25]) {
      const url = canvas.toDataURL("image/jpeg", quality);
      if (url.length <= MOST_LETTERS) return url;
    }
    return undefined;
  } catch {
    return undefined;
  }
}
