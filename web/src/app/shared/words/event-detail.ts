import type { EventType, JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { LIFT_STEP_WORDS } from './charge-words';
import { FINDING_NAMES, foundWords } from './diagnosis-words';
import { ratingWords, volts } from './figures';
import { clampWords } from './clamp-words';
import { VERDICT_WORDS } from './verdict-words';
import { outcomeWords, readingName, STOP_WORDS, SYMPTOM_WORDS } from './words';

/** Kinds of entries that a log is filtered by. */
export const LOG_KINDS = ['all', 'notes', 'found', 'hands'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

const FOUND: readonly EventType[] = [
  'scene.recorded',
  'stop.raised',
  'stop.withdrawn',
  'symptom.recorded',
  'finding.recorded',
  'finding.withdrawn',
  'polarity.proved',
  'reading.taken',
  'reading.withdrawn',
  'charge.read',
  'lift.read',
  'leads.measured',
  'battery.found',
];

/** Returns the kind of an entry. */
export function logKindOf(type: EventType): Exclude<LogKind, 'all'> {
  if (type === 'note.added' || type === 'photo.added') return 'notes';
  return FOUND.includes(type) ? 'found' : 'hands';
}

/** Returns what an entry says beside its name; nothing where the name says all. */
export function eventDetail(event: JobEvent, machine: Machine): string {
  switch (event.type) {
    case 'note.added':
      return event.data.text;
    case 'photo.added':
      return event.data.caption;
    case 'reading.taken':
      return `${readingName(event.data.kind, event.data.battery, machine)}: ${volts(event.data.volts)}`;
    case 'finding.recorded':
      return `${FINDING_NAMES[event.data.check]}: ${foundWords(event.data.check, event.data.found)}`;
    case 'symptom.recorded':
      return SYMPTOM_WORDS[event.data.symptom];
    case 'attempt.ended':
      return outcomeWords(machine)[event.data.outcome].name;
    case 'clamp.attached':
    case 'clamp.detached':
      return clampWords(event.data.clamp);
    case 'lift.read':
      return volts(event.data.volts);
    case 'lift.confirmed':
      return LIFT_STEP_WORDS[event.data.step];
    case 'battery.found':
    case 'battery.replaced':
      return ratingWords(event.data.rating);
    case 'stop.raised':
      return STOP_WORDS[event.data.stop].sign;
    case 'stop.withdrawn':
    case 'override.given':
      return event.data.reason;
    case 'verdict.given':
      return VERDICT_WORDS[event.data.verdict].name;
    default:
      return '';
  }
}
