/** The longest side of a picture on paper, pixels: 250 points at 300 dots an inch. */
const SIDE_PX = 1040;

/** Returns a picture as a JPEG data URL, upright and no larger than paper shows. */
export async function jpegUrl(picture: Blob): Promise<string> {
  const bitmap = await createImageBitmap(picture);
  const scale = Math.min(1, SIDE_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas.toDataURL('image/jpeg', 0.8);
}
