import { isAtFault, walkRound } from '@voltrek/core/diagnosis';
import { fixed, withinSentence } from '@words/numbers';
import { doubtOf, type Job, mendedOfJob } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { DOUBT_WORDS, FINDING_NAMES, foundWords } from '@words/diagnosis-words';
import { volts } from '@words/figures';
import { degrees } from '@words/units';
import { mendedLine } from '@words/repair-words';
import { outcomeWords, readingName, SYMPTOM_WORDS } from '@words/words';
import { CERTAINTY_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import type { Work } from '../../../shared/job/job-selectors';
import { SHEET_TEXT as T } from '@words/screens/job-stages-verdict';

/** A verdict as one line: "Not the battery: starter. Fairly sure." */
export function verdictLine({ verdict, suspect, certainty, repaired }: VerdictRecord): string {
  return `${verdictTitle(verdict, suspect, repaired)}. ${CERTAINTY_WORDS[certainty]}.`;
}

/** One reading as a line of a sheet, with what stands against it. */
export interface ReadingLine {
  readonly name: string;
  readonly value: string;
  readonly note: string;
}

/** Every reading and figure of a job, oldest first. */
export function readingLines({ job, machine }: Pick<Work, 'job' | 'machine'>): ReadingLine[] {
  const readings = job.readings.map((r) => {
    const doubt = doubtOf(job, machine, r);
    return {
      at: r.at,
      name: readingName(r.kind, r.battery, machine),
      value: `${volts(r.volts)}${r.source === 'typed' ? '' : `, ${r.source}`}`,
      note: doubt ? DOUBT_WORDS[doubt] : '',
    };
  });
  const figures = job.figures.map((f) => ({
    at: f.at,
    name: FINDING_NAMES[f.check],
    value: foundWords(f.check, f.found),
    note: f.figures.length > 1 ? f.figures.join(', ') : '',
  }));
  return [...readings, ...figures].sort((a, b) => a.at.localeCompare(b.at));
}

/** The tries, as lines. */
export function tryLines({ job, machine }: Pick<Work, 'job' | 'machine'>): string[] {
  const words = outcomeWords(machine);
  return job.attempts.flatMap((a, i) => {
    if (!a.outcome) return [];
    if (a.rolled) return [T.tryRolled({ number: i + 1, outcome: withinSentence(words[a.outcome].name) })];
    const help = a.helped ? T.withHelp : T.byItself;
    const lowest = a.lowestVolts === null ? '' : T.lowest({ lowestVolts: volts(a.lowestVolts) });
    return [
      T.tryS({
        number: i + 1,
        help,
        outcome: withinSentence(words[a.outcome].name),
        seconds: a.seconds == null ? '' : fixed(a.seconds),
        lowest,
      }),
    ];
  });
}

/** The repairs, each with its proof. */
export const mendedLines = (job: Job): string[] => mendedOfJob(job).map(mendedLine);

function faultLines({ findings, symptoms }: Job, machine: Machine): string[] {
  const faults = walkRound(machine).flatMap((check) => {
    const found = findings[check];
    return found !== undefined && isAtFault(check, found)
      ? [`${FINDING_NAMES[check]}: ${foundWords(check, found)}`]
      : [];
  });
  return [...symptoms.map((s) => T.itDoes({ symptom: SYMPTOM_WORDS[s] })), ...faults];
}

/** The words for a workshop, plainly. */
export function workshopLines(work: Work, record: VerdictRecord): string[] {
  const { job, machine, situation } = work;
  return [
    `${machine.maker} ${machine.model}, ${machine.systemVolts} V, ${degrees(situation.tempC)}`,
    verdictLine(record),
    ...faultLines(job, machine),
    ...readingLines(work).map(({ name, value, note }) => `${name}: ${value}${note ? ` (${note})` : ''}`),
    ...tryLines(work),
    ...mendedLines(job),
  ];
}
