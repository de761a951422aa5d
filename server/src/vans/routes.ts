import { isDeepStrictEqual } from 'node:util';
import { parseConfirmation, parseKitEntry, parseVanEntry, UUID_PATTERN } from '@voltrek/contracts';
import type { KitItem } from '@voltrek/core/sources';
import { and, eq, isNull, ne } from 'drizzle-orm';
import { Router } from 'express';
import { requireModel } from '../atlas/repository.js';
import { requireCrew } from '../crew/repository.js';
import type { Database, Tx } from '../db/database.js';
import { vans } from '../db/schema.js';
import { HttpProblem, notFound } from '../http/problem.js';
import {
  addKitItem,
  addVan,
  allVans,
  finishMark,
  kitItemById,
  knownAt,
  recharge,
  requireVan,
  retireKitItem,
  writeKitItem,
} from './repository.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

/** Vans and what they carry. What was once carried is retired, never deleted: logs name it. Every change answers with all vans. */
export function vanRoutes({ db, write }: Database): Router {
  const router = Router();
  const changed = async (change: (tx: Tx) => Promise<void>) =>
    write(async (tx) => {
      await change(tx);
      return allVans(tx);
    });

  serve(router, 'GET /api/vans', async (request, response) => {
    sendList(request, response, await allVans(db), ({ id }) => id);
  });
  serve(router, 'POST /api/vans', async (request, response) => {
    const { name } = parseVanEntry(request.body);
    response.status(201).json(await changed(async (tx) => void (await addVan(tx, name))));
  });
  serve(router, 'PUT /api/vans/:vanId', async (request, response) => {
    const { name, retired } = parseVanEntry(request.body);
    const { vanId } = request.params;
    response.json(
      await changed(async (tx) => {
        await requireVan(tx, vanId);
        if (retired) await requireAnother(tx, vanId);
        await tx
          .update(vans)
          .set({ name, retiredAt: retired ? new Date() : null })
          .where(eq(vans.id, vanId));
      }),
    );
  });
  serve(router, 'POST /api/vans/:vanId/items', async (request, response) => {
    const entry = parseKitEntry(request.body);
    const { vanId } = request.params;
    response.status(201).json(
      await changed(async (tx) => {
        await requireVan(tx, vanId);
        if (entry.kind === 'donor') await requireModel(tx, entry.modelId);
        await addKitItem(tx, vanId, entry);
      }),
    );
  });
  serve(router, 'PUT /api/vans/items/:itemId', async (request, response) => {
    const entry = parseKitEntry(request.body);
    const { itemId } = request.params;
    response.json(
      await changed(async (tx) => {
        const known = await kitItemById(tx, itemId);
        if (known.kind !== entry.kind) throw new HttpProblem(409, 'kitKeepsKind');
        if (entry.kind === 'donor') await requireModel(tx, entry.modelId);
        await writeKitItem(tx, knownAt(withUses({ ...entry, id: itemId } as KitItem, known), new Date()));
      }),
    );
  });
  serve(router, 'POST /api/vans/items/:itemId/retire', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    response.json(
      await changed(async (tx) => {
        await requireCrew(tx, by);
        await kitItemById(tx, request.params.itemId);
        await retireKitItem(tx, request.params.itemId, new Date());
      }),
    );
  });
  serve(router, 'POST /api/vans/items/:itemId/recharge', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    response.json(
      await changed(async (tx) => {
        await requireCrew(tx, by);
        await recharge(tx, await kitItemById(tx, request.params.itemId), by, new Date());
      }),
    );
  });
  serve(router, 'POST /api/vans/marks/:markId/done', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    const { markId } = request.params;
    response.json(
      await changed(async (tx) => {
        await requireCrew(tx, by);
        const done = UUID_PATTERN.test(markId) ? await finishMark(tx, markId, by, new Date()) : null;
        if (!done) throw notFound('openMark', markId);
        if (done.need === 'recharge')
          await recharge(tx, await kitItemById(tx, done.kitItemId), by, new Date());
      }),
    );
  });
  return router;
}

/** One van has to be left on the road. */
async function requireAnother(tx: Tx, vanId: string): Promise<void> {
  const [other] = await tx
    .select({ id: vans.id })
    .from(vans)
    .where(and(ne(vans.id, vanId), isNull(vans.retiredAt)))
    .limit(1);
  if (!other) throw new HttpProblem(409, 'lastVan');
}

/** The field that measures a piece: another value makes it another piece, which nobody has measured. */
const MEASURED_BY = ['leads', 'peakAmps', 'battery'] as const;

/** A piece whose entry was corrected, with what its uses have measured of it; nothing of a piece that is another now. */
function withUses(item: KitItem, known: KitItem): KitItem {
  const [now, before] = [item, known] as unknown as readonly Readonly<Record<string, unknown>>[];
  const isSame = MEASURED_BY.every((part) => isDeepStrictEqual(now![part], before![part]));
  return isSame && before!.uses && !now!.uses ? ({ ...item, uses: before!.uses } as KitItem) : item;
}
