import { Readable } from 'node:stream';
import { FILE_NOUNS, type FileNoun } from '@voltrek/contracts';
import { NOUN_ROWS } from '@voltrek/contracts/noun-files';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { type Request, Router } from 'express';
import type { NewsDesk } from '../http/news.js';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { documentSchema } from './document.js';
import { formOf, importNoun, previewNoun, toCsv, toJson } from './noun-file.js';
import { bodyId, formBasis, importUpload, withSentText } from './upload.js';
import { serve } from '../http/serve.js';

function nounOf(request: Request): FileNoun {
  const noun = FILE_NOUNS.find((n) => n === request.params.noun);
  if (!noun) throw notFound('fileOf', String(request.params.noun));
  return noun;
}

/** Files of crew, kit, vehicles, batteries, calls and jobs: out as JSON and CSV, and the same in again. */
export function fileRoutes(database: Database, news: NewsDesk): Router {
  const { db } = database;
  const router = Router();
  serve(router, 'GET /api/files/:noun/schema.json', (request, response) => {
    response.json(schemaOf(nounOf(request)));
  });
  serve(router, 'GET /api/files/:noun/export.json', (request, response) => {
    const noun = nounOf(request);
    response.attachment(`${noun}.json`).type('application/json');
    Readable.from(toJson(db, noun)).pipe(response);
  });
  serve(router, 'GET /api/files/:noun/export.csv', (request, response) => {
    const noun = nounOf(request);
    response.attachment(`${noun}.csv`).type('text/csv');
    Readable.from(toCsv(db, noun)).pipe(response);
  });
  serve(router, 'POST /api/files/:noun/preview', importUpload(), async (request, response) => {
    response.json(await withSentText(request, (text) => previewNoun(db, nounOf(request), text)));
  });
  serve(router, 'POST /api/files/:noun/import', importUpload(), async (request, response) => {
    response.json(
      await withSentText(request, (text) =>
        importNoun(database, nounOf(request), text, bodyId(request), formBasis(request)),
      ),
    );
    news.boardChanged();
  });
  return router;
}

function schemaOf(noun: FileNoun): object {
  const { schema, list } = NOUN_ROWS[noun];
  const row = convertSchema(schema);
  if (!list) return documentSchema(formOf(noun), row);
  const entries = list.kinds.map((kind) => convertSchema(list.schemaOf(kind)!));
  const items = entries.length === 1 ? entries[0] : { anyOf: entries };
  return documentSchema(formOf(noun), {
    ...row,
    required: [...(row.required ?? []), list.field],
    properties: { ...row.properties, [list.field]: { type: 'array', items } },
  });
}
