import { type JobEvent, sheetOfJob } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { event, opened, workOf } from '../../../../testing/fixtures';
import { outcomeWords } from '@words/words';
import { setLanguage } from '../../../shared/model/language';
import { sheetDocument } from './sheet-pdf';
import { readingLines, verdictLine, workshopLines } from './sheet-text';
import { svgText } from './svg-text';

const RECORD: VerdictRecord = {
  verdict: 'not-the-battery',
  suspect: 'starter',
  certainty: 'fairly-sure',
  share: 0.83,
  ground: 'fault-elsewhere',
  causes: [{ cause: 'starter', share: 0.83 }],
  ledger: [{ check: 'with-help', found: 'clicks', bits: 3.2 }],
  deciding: null,
  followUps: [{ kind: 'workshop', days: 0 }],
};

const log = (): JobEvent[] => [
  opened(),
  event('symptom.recorded', { symptom: 'one-click' }),
  event('reading.taken', { kind: 'rest', volts: 12.61, battery: 0, tempC: -4, source: 'meter' }),
  event('reading.taken', { kind: 'charging-idle', volts: 14.4, battery: 0, tempC: -4, source: 'typed' }),
  event('finding.recorded', { check: 'conductance', found: 0.93, source: 'meter', figures: [502] }),
  event('attempt.started', {}),
  event('attempt.ended', { outcome: 'clicks', seconds: 3, lowestVolts: 12.1 }),
  event('override.given', { rule: 'crankRestSeconds', reason: 'ferry leaves' }),
];

/** Every text of a document, in order. */
function textsOf(node: unknown): string[] {
  if (typeof node === 'string') return [node];
  if (Array.isArray(node)) return node.flatMap(textsOf);
  if (typeof node !== 'object' || node === null) return [];
  const { text, stack, columns, ul, table, content } = node as Record<string, unknown>;
  const body = (table as { body?: unknown } | undefined)?.body;
  return [text, stack, columns, ul, body, content].flatMap(textsOf);
}

describe('job sheet', () => {
  it('says the verdict, every reading with what stands against it, and the tries', () => {
    const work = workOf(log());
    expect(verdictLine(RECORD)).toBe('Not the battery: starter. Fairly sure.');
    const lines = readingLines(work);
    expect(lines.map((l) => l.value)).toEqual(['12.61 V, meter', '14.40 V', '93 %']);
    expect(lines[1]!.note).toContain('Nothing is logged as running');
    const told = workshopLines(work, RECORD).join('\n');
    for (const part of ['Test Car', 'one click', 'Try 1, by itself: clicks, 3 s, lowest 12.10 V'])
      expect(told).toContain(part);
  });

  it('keeps the capital of a German noun within a line', () => {
    const work = workOf(log());
    const { clicks } = outcomeWords(work.machine);
    setLanguage('de');
    const told = workshopLines(work, RECORD).join('\n');
    setLanguage('en');
    expect(told).toContain(`: ${clicks.name}, `);
  });

  it('puts all of it into the document, with a place to sign', () => {
    const work = workOf(log());
    const sheet = sheetOfJob(work.job, work.machine, 0);
    const document = sheetDocument(
      sheet,
      RECORD,
      work,
      'Tamsel',
      '<svg xmlns="http://www.w3.org/2000/svg"/>',
    );
    const texts = textsOf(document).join('\n');
    for (const part of [
      'Job sheet',
      'Not the battery: starter. Fairly sure. 83 %. (not given yet)',
      '12.61 V, meter',
      'With help it',
      'speaks for it, strongly',
      'Hand to a workshop: now',
      'Rest between tries: ferry leaves',
      'Clock: to be set',
      'Technician, Tamsel',
      'Driver or owner',
    ])
      expect(texts).toContain(part);
    expect(JSON.stringify(document)).toContain('"svg"');
  });

  it('writes a drawing’s styles into its elements, in the colours of day whatever the light', () => {
    const host = document.createElement('div');
    host.innerHTML = `<svg viewBox="0 0 10 20"><path class="body" d="M0 0H5"/><text class="t">12 V</text></svg>
      <style>.body { fill: rgb(1, 2, 3); stroke-width: 2px } [data-light=day] .t { fill: rgb(9, 9, 9) }</style>`;
    document.body.append(host);
    document.documentElement.setAttribute('data-light', 'night');
    const text = svgText(host.querySelector('svg')!);
    expect(text).toContain('fill="rgb(1, 2, 3)"');
    expect(text).toContain('fill="rgb(9, 9, 9)"');
    expect(text).toContain('width="10"');
    expect(text).not.toContain('class=');
    expect(document.documentElement.getAttribute('data-light')).toBe('night');
    host.remove();
  });
});
