import type { VerdictRecord } from '@voltrek/core/verdict';
import { addDays, format } from 'date-fns';
import { event, opened } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { OwnerPagePart } from './owner-page';
import { datesCalendar, ownerDocument, type OwnerPage } from './owner-pdf';

const VERDICT: VerdictRecord = {
  verdict: 'charge-first',
  suspect: null,
  certainty: 'fairly-sure',
  followUps: [
    { kind: 'charge', days: 0 },
    { kind: 'recheck', days: 2 },
  ],
};
const PAGE: OwnerPage = {
  callNumber: 12,
  visitedOn: new Date(2027, 0, 15),
  title: 'QX 1, Pella',
  crewName: 'Isk',
  finding: 'Your battery was flat.',
  advice: ['Charge it.', 'Bring it back.'],
  dates: [{ kind: 'recheck', on: new Date(2027, 0, 17) }],
};

describe('The page for the owner', () => {
  it('asks for the verdict first', async () => {
    const { root } = await jobHarness(OwnerPagePart, [opened()]);
    expect(root.textContent).toContain('Give the verdict first');
    expect(root.querySelector('button')).toBeNull();
  });

  it('says no more than was found', async () => {
    const { root } = await jobHarness(OwnerPagePart, [
      opened(),
      event('verdict.given', { ...VERDICT, certainty: 'unsure' }),
    ]);
    expect(root.querySelector('.finding')!.textContent).toContain('probably flat: it was not measured');
  });

  it('carries the day of the visit, and no date that is past', async () => {
    const long = { ...VERDICT, followUps: [{ kind: 'recheck', days: 2 }] } as VerdictRecord;
    const { root } = await jobHarness(OwnerPagePart, [
      opened(),
      event('verdict.given', long),
      { ...event('job.closed', { note: '' }), at: '2020-01-15T02:00:00.000Z' },
    ]);
    expect(root.querySelectorAll('p strong').length).toBe(0);
    const text = JSON.stringify(ownerDocument(PAGE).content);
    expect(text).toContain('2027');
    expect(text).toContain('15');
  });

  it('says in plain words what was wrong, what to do, and when', async () => {
    const { root } = await jobHarness(OwnerPagePart, [
      opened(),
      event('reading.taken', { kind: 'rest', volts: 11.4, battery: 0, tempC: -4, source: 'typed' }),
      event('finding.recorded', { check: 'ask-use', found: 'short-trips' }),
      event('verdict.given', VERDICT),
    ]);
    expect(root.querySelector('.finding')!.textContent).toContain(
      'Your battery was flat. Charge it to full, then have it judged: flat is not bad.',
    );
    const list = [...root.querySelectorAll('li')].map((li) => li.textContent);
    expect(list[0]).toMatch(/Charge it to full with about \d/);
    expect(list.some((text) => text.includes('once a month'))).toBeTrue();
    const due = addDays(new Date(), 2);
    expect(root.textContent).toMatch(new RegExp(`${format(due, 'EEE')},? ${format(due, 'd MMM y')}`));
    // Words of the trade stay with the trade.
    expect(root.textContent).not.toMatch(/SoC|posterior|CCA|ledger/);
  });
});

describe('The page as a PDF', () => {
  it('has its dates as whole days of a calendar', () => {
    const calendar = datesCalendar(PAGE);
    expect(calendar).toContain('DTSTART;VALUE=DATE:20270117');
    expect(calendar.match(/BEGIN:VEVENT/g)!.length).toBe(1);
    // A code of more is none that a phone reads off paper.
    expect(calendar.length).toBeLessThan(1200);
  });

  it('has no code where nothing is due', () => {
    const text = JSON.stringify(ownerDocument({ ...PAGE, dates: [] }).content);
    expect(text).not.toContain('"qr"');
    expect(text).toContain('Bring it back.');
    expect(JSON.stringify(ownerDocument(PAGE).content)).toContain('"qr"');
  });
});
