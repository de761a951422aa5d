import { Readable } from 'node:stream';
import { machineSchema, parseConfirmation, parseEntryChange, UUID_PATTERN } from '@voltrek/contracts';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { Router } from 'express';
import type { Database } from '../db/database.js';
import type { StreamHub } from '../http/stream-hub.js';
import { notFound } from '../http/problem.js';
import { toCsv } from './csv-write.js';
import { documentSchema, writeDocument } from '../files/document.js';
import {
  bodyId,
  formBasis,
  formPhotoId,
  importUpload,
  sentFile,
  upload,
  withSentText,
} from '../files/upload.js';
import { applyImport, previewImport } from './file.js';
import { ATLAS_FORM } from './json.js';
import { PHOTO_BYTES_MAX } from './photo.js';
import { allMachines, entryById, photoById, searchMachines } from './repository.js';
import { addEntry, confirmEntry, correctEntry, keepPhoto } from './service.js';
import { serve } from '../http/serve.js';

const RESULTS_MOST = 60;

export function atlasRoutes(database: Database, hub: StreamHub): Router {
  const { db } = database;
  const router = Router();
  serve(router, 'GET /api/models', async (request, response) => {
    const typed = typeof request.query.q === 'string' ? request.query.q.slice(0, 120) : '';
    response.json(await searchMachines(db, typed, RESULTS_MOST));
  });
  serve(router, 'GET /api/models/schema.json', (_request, response) => {
    response.json(documentSchema(ATLAS_FORM, convertSchema(machineSchema)));
  });
  serve(router, 'GET /api/models/export.json', (_request, response) => {
    response.attachment('atlas.json').type('application/json');
    Readable.from(writeDocument(ATLAS_FORM, allMachines(db))).pipe(response);
  });
  serve(router, 'GET /api/models/export.csv', (_request, response) => {
    response.attachment('atlas.csv').type('text/csv');
    Readable.from(toCsv(allMachines(db))).pipe(response);
  });
  serve(router, 'POST /api/models/preview', importUpload(), async (request, response) => {
    response.json(await withSentText(request, (text) => previewImport(db, text)));
  });
  serve(router, 'POST /api/models/import', importUpload(), async (request, response) => {
    response.json(
      await withSentText(request, (text) =>
        applyImport(database, hub, text, bodyId(request), formBasis(request)),
      ),
    );
  });
  serve(router, 'POST /api/models', async (request, response) => {
    const added = await addEntry(database, parseEntryChange(request.body));
    response.status(201).location(`/api/models/${added.machine.id}`).json(added);
  });
  serve(router, 'GET /api/models/:modelId', async (request, response) => {
    const entry = await entryById(db, request.params.modelId);
    if (!entry) throw notFound('machine', request.params.modelId);
    response.json(entry);
  });
  serve(router, 'PUT /api/models/:modelId', async (request, response) => {
    response.json(await correctEntry(database, hub, request.params.modelId, parseEntryChange(request.body)));
  });
  serve(router, 'POST /api/models/:modelId/confirmations', async (request, response) => {
    const { by, note } = parseConfirmation(request.body);
    response.status(201).json(await confirmEntry(database, request.params.modelId, by, note));
  });
  serve(
    router,
    'POST /api/models/:modelId/photos',
    upload(PHOTO_BYTES_MAX).single('photo'),
    async (request, response) => {
      const entry = await keepPhoto(
        database,
        request.params.modelId,
        bodyId(request),
        sentFile(request),
        formPhotoId(request),
      );
      response.status(201).json(entry);
    },
  );
  serve(router, 'GET /api/models/:modelId/photos/:photoId', async (request, response) => {
    const { modelId, photoId } = request.params;
    const isId = UUID_PATTERN.test(photoId);
    const jpeg = isId ? await photoById(db, modelId, photoId) : null;
    if (!jpeg) throw notFound('photo', photoId);
    // A photo never changes under its id.
    response
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .type('image/jpeg')
      .send(Buffer.from(jpeg));
  });
  return router;
}
