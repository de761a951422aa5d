import sharp from 'sharp';
import { HttpProblem } from '../http/problem.js';

/** The largest upload: a phone's picture at its best quality. */
export const PHOTO_BYTES_MAX = 12 * 1024 * 1024;
/** Longest side of what is kept. */
const SIDE_PX = 1600;
/** Pictures with more pixels are refused before they are unpacked: a small file can hold a huge picture. */
const PIXELS_MAX = 60_000_000;
const FORMATS: readonly string[] = ['jpeg', 'png', 'webp'];

export interface KeptPhoto {
  readonly jpeg: Uint8Array;
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * A photo fit to keep: by its content, not its name, a JPEG, PNG or WebP; upright, at most 1,600 pixels a side, without place, time,
 * camera or any other metadata.
 *
 * @throws HttpProblem 415 for anything that is not such a picture
 */
export async function photoFrom(upload: Uint8Array): Promise<KeptPhoto> {
  const refuse = (): never => {
    throw new HttpProblem(415, 'notAPhoto');
  };
  try {
    const picture = sharp(upload, { limitInputPixels: PIXELS_MAX, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!FORMATS.includes(format)) return refuse();
    const { data, info } = await picture
      .rotate()
      .resize({ width: SIDE_PX, height: SIDE_PX, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return { jpeg: data, widthPx: info.width, heightPx: info.height };
  } catch (error) {
    if (error instanceof HttpProblem) throw error;
    return refuse();
  }
}
