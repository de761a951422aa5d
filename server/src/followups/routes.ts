import { CALENDAR_WORDS, type CalendarWords } from '@voltrek/contracts/words';
import { type Request, Router } from 'express';
import { ICalCalendar } from 'ical-generator';
import type { Database } from '../db/database.js';
import { dueFollowUps } from './repository.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

const LANGUAGES = Object.keys(CALENDAR_WORDS) as (keyof typeof CALENDAR_WORDS)[];

/** The words of the language that a request asks for: by its parameter, else by its header, else English. */
function wordsFor(request: Pick<Request, 'query' | 'acceptsLanguages'>): CalendarWords {
  const asked = LANGUAGES.find((language) => language === request.query.language);
  const accepted = request.acceptsLanguages(LANGUAGES);
  return CALENDAR_WORDS[asked ?? LANGUAGES.find((language) => language === accepted) ?? 'en'];
}

export function followUpRoutes({ db }: Database): Router {
  const router = Router();
  serve(router, 'GET /api/follow-ups', async (request, response) => {
    const due = await dueFollowUps(db, new Date());
    sendList(request, response, due, ({ jobId, kind }) => `${jobId}_${kind}`);
  });
  serve(router, 'GET /api/follow-ups/calendar.ics', async (request, response) => {
    const { name, call, kinds } = wordsFor(request);
    const calendar = new ICalCalendar({ name, prodId: '//voltrek//follow-ups//EN' });
    for (const { jobId, callNumber, title, placeName, kind, dueOn } of await dueFollowUps(db, new Date())) {
      calendar.createEvent({
        // The same promise keeps its id, so that a calendar that reads this again does not double it.
        id: `${jobId}-${kind}@voltrek`,
        start: new Date(`${dueOn}T00:00:00Z`),
        allDay: true,
        summary: `${kinds[kind]}: ${title}`,
        description: `${call} ${callNumber}`,
        ...(placeName && { location: placeName }),
      });
    }
    response.attachment('follow-ups.ics').type('text/calendar').send(calendar.toString());
  });
  return router;
}
