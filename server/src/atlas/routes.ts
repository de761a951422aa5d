import { idText, machineSchema, parseConfirmation, parseEntryChange, UUID_PATTERN } from '@voltrek/contracts';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { type Request, Router } from 'express';
import multer from 'multer';
import type { Database } from '../db/database.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { toCsv } from './csv-write.js';
import { applyImport, IMPORT_BYTES_MAX, previewImport } from './file.js';
import { ATLAS_FORMAT, ATLAS_VERSION, toJson } from './json.js';
import { PHOTO_BYTES_MAX } from './photo.js';
import { allMachines, entryById, photoById, searchMachines } from './repository.js';
import { addEntry, confirmEntry, correctEntry, keepPhoto } from './service.js';

const RESULTS_MOST = 60;

/** One file in memory, no larger than `fileSize`. */
const upload = (fileSize: number) =>
  multer({ storage: multer.memoryStorage(), limits: { fileSize, files: 1, fields: 4 } });

function sentFile(request: Request): Uint8Array {
  if (!request.file) throw new HttpProblem(400, 'No file was sent.');
  return request.file.buffer;
}

/** A field of a form; undefined where there is none, or no form. */
const formField = (request: Request, name: string): unknown =>
  (request.body as Readonly<Record<string, unknown>> | undefined)?.[name];

const bodyId = (request: Request): string => idText().label('by').validateSync(formField(request, 'by'));

export function atlasRoutes(database: Database): Router {
  const { db } = database;
  const router = Router();
  router.get('/', async (request, response) => {
    const typed = typeof request.query.q === 'string' ? request.query.q.slice(0, 120) : '';
    response.json(await searchMachines(db, typed, RESULTS_MOST));
  });
  router.get('/schema.json', (_request, response) => {
    response.json({
      $schema: 'https://json-schema.org/draft/2020-12/schema',
      title: ATLAS_FORMAT,
      type: 'object',
      required: ['format', 'version', 'machines'],
      properties: {
        format: { const: ATLAS_FORMAT },
        version: { const: ATLAS_VERSION },
        machines: { type: 'array', items: convertSchema(machineSchema) },
      },
    });
  });
  router.get('/export.json', async (_request, response) => {
    response
      .attachment('atlas.json')
      .type('application/json')
      .send(toJson(await allMachines(db)));
  });
  router.get('/export.csv', async (_request, response) => {
    response
      .attachment('atlas.csv')
      .type('text/csv')
      .send(toCsv(await allMachines(db)));
  });
  router.post('/preview', upload(IMPORT_BYTES_MAX).single('file'), async (request, response) => {
    response.json(await previewImport(db, sentFile(request)));
  });
  router.post('/import', upload(IMPORT_BYTES_MAX).single('file'), async (request, response) => {
    const basis = Number(formField(request, 'basis') ?? NaN);
    if (!Number.isInteger(basis)) throw new HttpProblem(422, 'Say which preview was agreed to.');
    response.json(await applyImport(database, sentFile(request), bodyId(request), basis));
  });
  router.post('/', async (request, response) => {
    response.status(201).json(await addEntry(database, parseEntryChange(request.body)));
  });
  router.get('/:modelId', async (request, response) => {
    const entry = await entryById(db, request.params.modelId);
    if (!entry) throw notFound(`machine ${request.params.modelId}`);
    response.json(entry);
  });
  router.put('/:modelId', async (request, response) => {
    response.json(await correctEntry(database, request.params.modelId, parseEntryChange(request.body)));
  });
  router.post('/:modelId/confirmations', async (request, response) => {
    const { by, note } = parseConfirmation(request.body);
    response.status(201).json(await confirmEntry(database, request.params.modelId, by, note));
  });
  router.post('/:modelId/photos', upload(PHOTO_BYTES_MAX).single('photo'), async (request, response) => {
    const entry = await keepPhoto(
      database,
      String(request.params.modelId),
      bodyId(request),
      sentFile(request),
    );
    response.status(201).json(entry);
  });
  router.get('/:modelId/photos/:photoId', async (request, response) => {
    const { modelId, photoId } = request.params;
    const isId = UUID_PATTERN.test(photoId);
    const jpeg = isId ? await photoById(db, modelId, photoId) : null;
    if (!jpeg) throw notFound(`photo ${photoId}`);
    // A photo never changes under its id.
    response
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .type('image/jpeg')
      .send(Buffer.from(jpeg));
  });
  return router;
}
