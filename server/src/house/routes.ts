import { parseSetUp } from '@voltrek/contracts';
import { underWord } from '@voltrek/core/quantities';
import { USUAL_KIT } from '@voltrek/core/sources';
import { Router } from 'express';
import { hasCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { crew, vans } from '../db/schema.js';
import { loadAtlas } from '../demo/load.js';
import { HttpProblem } from '../http/problem.js';
import { addKitItem } from '../vans/repository.js';
import { serve } from '../http/serve.js';

/** Whether this house has been set up, and setting it up: once, while nobody works here yet. */
export function houseRoutes({ db, write }: Database): Router {
  const router = Router();
  serve(router, 'GET /api/house', async (_request, response) => {
    response.json({ isSetUp: await hasCrew(db), usualKit: USUAL_KIT });
  });
  serve(router, 'POST /api/house', async (request, response) => {
    const { crew: people, vans: fleet, atlas } = parseSetUp(request.body);
    await write(async (tx) => {
      if (await hasCrew(tx)) throw new HttpProblem(409, 'alreadySetUp');
      await tx.insert(crew).values(people.map((member, i) => ({ id: `crew-${i + 1}`, ...member })));
      for (const [i, { name, kit }] of fleet.entries()) {
        const vanId = `van-${i + 1}`;
        await tx.insert(vans).values({ id: vanId, name });
        for (const named of kit) {
          const entry = underWord(USUAL_KIT, named);
          if (!entry) throw new HttpProblem(422, 'noUsualKit', { params: [named] });
          await addKitItem(tx, vanId, entry, `${named}-${i + 1}`);
        }
      }
      if (atlas === 'shipped') await loadAtlas(tx, 'crew-1', new Date());
    });
    response.status(201).json({ isSetUp: true, usualKit: USUAL_KIT });
  });
  return router;
}
