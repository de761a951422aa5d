import { Readable } from 'node:stream';
import { FILE_RESOURCES, type FileResource } from '@voltrek/contracts';
import { RESOURCE_ROWS } from '@voltrek/contracts/resource-files';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { type Request, Router } from 'express';
import type { StreamHub } from '../http/stream-hub.js';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { documentSchema } from './document.js';
import { formOf, importResource, previewResource, toCsv, toJson } from './resource-file.js';
import { bodyId, formBasis, importUpload, withSentText } from './upload.js';
import { serve } from '../http/serve.js';

function resourceOf(request: Request): FileResource {
  const resource = FILE_RESOURCES.find((n) => n === request.params.resource);
  if (!resource) throw notFound('fileOf', String(request.params.resource));
  return resource;
}

/** Files of crew, kit, vehicles, batteries, calls and jobs: out as JSON and CSV, and the same in again. */
export function fileRoutes(database: Database, hub: StreamHub): Router {
  const { db } = database;
  const router = Router();
  serve(router, 'GET /api/files/:resource/schema.json', (request, response) => {
    response.json(schemaOf(resourceOf(request)));
  });
  serve(router, 'GET /api/files/:resource/export.json', (request, response) => {
    const resource = resourceOf(request);
    response.attachment(`${resource}.json`).type('application/json');
    Readable.from(toJson(db, resource)).pipe(response);
  });
  serve(router, 'GET /api/files/:resource/export.csv', (request, response) => {
    const resource = resourceOf(request);
    response.attachment(`${resource}.csv`).type('text/csv');
    Readable.from(toCsv(db, resource)).pipe(response);
  });
  serve(router, 'POST /api/files/:resource/preview', importUpload(), async (request, response) => {
    response.json(await withSentText(request, (text) => previewResource(db, resourceOf(request), text)));
  });
  serve(router, 'POST /api/files/:resource/import', importUpload(), async (request, response) => {
    response.json(
      await withSentText(request, (text) =>
        importResource(database, resourceOf(request), text, bodyId(request), formBasis(request)),
      ),
    );
    hub.boardChanged();
  });
  return router;
}

function schemaOf(resource: FileResource): object {
  const { schema, list } = RESOURCE_ROWS[resource];
  const row = convertSchema(schema);
  if (!list) return documentSchema(formOf(resource), row);
  const entries = list.kinds.map((kind) => convertSchema(list.schemaOf(kind)!));
  const items = entries.length === 1 ? entries[0] : { anyOf: entries };
  return documentSchema(formOf(resource), {
    ...row,
    required: [...(row.required ?? []), list.field],
    properties: { ...row.properties, [list.field]: { type: 'array', items } },
  });
}
