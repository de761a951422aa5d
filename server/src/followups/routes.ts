import { FOLLOW_UP_WORDS } from '@voltrek/contracts/words';
import { Router } from 'express';
import { ICalCalendar } from 'ical-generator';
import type { Database } from '../db/database.js';
import { dueFollowUps } from './repository.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function followUpRoutes({ db }: Database): Router {
  const router = Router();
  serve(router, 'GET /api/follow-ups', async (request, response) => {
    const due = await dueFollowUps(db, new Date());
    sendList(request, response, due, ({ jobId, kind }) => `${jobId}_${kind}`);
  });
  serve(router, 'GET /api/follow-ups/calendar.ics', async (_request, response) => {
    const calendar = new ICalCalendar({ name: 'Voltrek follow-ups', prodId: '//voltrek//follow-ups//EN' });
    for (const { jobId, callNumber, title, placeName, kind, dueOn } of await dueFollowUps(db, new Date())) {
      calendar.createEvent({
        // The same promise keeps its id, so that a calendar that reads this again does not double it.
        id: `${jobId}-${kind}@voltrek`,
        start: new Date(`${dueOn}T00:00:00Z`),
        allDay: true,
        summary: `${FOLLOW_UP_WORDS[kind]}: ${title}`,
        description: `Call ${callNumber}`,
        location: placeName,
      });
    }
    response.attachment('follow-ups.ics').type('text/calendar').send(calendar.toString());
  });
  return router;
}
