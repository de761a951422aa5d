import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { idText, UUID_PATTERN } from '@voltrek/contracts';
import type { Request } from 'express';
import multer from 'multer';
import { HttpProblem } from '../http/problem.js';
import { requireSpeaker } from '../sign-in/guard.js';
import { piecesOf, TextWindow } from './text-window.js';

/** One file in memory, no larger than `fileSize`. */
export const upload = (fileSize: number) =>
  multer({ storage: multer.memoryStorage(), limits: { fileSize, files: 1, fields: 4 } });

/** The largest import: an export of five thousand models is a sixteenth of it. */
const IMPORT_BYTES_MAX = 512 * 1024 * 1024;

/** One file of rows, laid on the disk as it comes: `withSentText` reads it from there, and throws it away. */
export const importUpload = () =>
  multer({ dest: tmpdir(), limits: { fileSize: IMPORT_BYTES_MAX, files: 1, fields: 4 } }).single('file');

/** Does something with the text of the file that was sent. @throws HttpProblem 400 when none was sent */
export async function withSentText<T>(request: Request, use: (text: TextWindow) => Promise<T>): Promise<T> {
  if (!request.file) throw new HttpProblem(400, 'noFile');
  const { path } = request.file;
  try {
    return await use(new TextWindow(piecesOf(createReadStream(path) as AsyncIterable<Buffer>)));
  } finally {
    await rm(path, { force: true });
  }
}

/** The bytes of the file. @throws HttpProblem 400 when none was sent */
export function sentFile(request: Request): Uint8Array {
  if (!request.file) throw new HttpProblem(400, 'noFile');
  return request.file.buffer;
}

/** A field of a form; undefined where there is none, or no form. */
const formField = (request: Request, name: string): unknown =>
  (request.body as Readonly<Record<string, unknown>> | undefined)?.[name];

/** Returns the sender of the file. @throws ValidationError, HttpProblem 401 or 403 where they may not */
export function bodyId(request: Request): string {
  const by = idText().label('by').validateSync(formField(request, 'by'));
  requireSpeaker(request, by);
  return by;
}

/** The id that a photo was given where it was taken; undefined for one that gets its id here. @throws HttpProblem 422 */
export function formPhotoId(request: Request): string | undefined {
  const id = formField(request, 'id');
  if (id === undefined) return undefined;
  if (typeof id !== 'string' || !UUID_PATTERN.test(id)) throw new HttpProblem(422, 'photoIdUuid');
  return id;
}

/** The preview that was agreed to. @throws HttpProblem 422 when none is named */
export function formBasis(request: Request): number {
  const basis = Number(formField(request, 'basis') ?? NaN);
  if (!Number.isInteger(basis)) throw new HttpProblem(422, 'whichPreview');
  return basis;
}
