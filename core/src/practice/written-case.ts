import {
  ALONG_CAUSES,
  type AlongCause,
  type Cause,
  type CheckId,
  CHECKS,
  type DiagnosisProfile,
  type Symptom,
  SYMPTOMS,
} from '../diagnosis/index.js';
import { MACHINE_CLASSES, type MachineClass } from '../machine/index.js';
import { outOfRange, type Range } from '../quantities/index.js';
import { causesOf, profileOf } from './case-profile.js';
import { PRACTICE_KIT } from './kit.js';
import { opaqueOf, textOf } from './opaque.js';

/** Colder and hotter than this no case is made, degC. */
export const MADE_COLD = { min: -30, max: 40, unit: '°C' } as const satisfies Range;
/** A written case is told from another of the same text by its number: what is drawn in it differs. */
export const WRITTEN_NUMBER = { min: 1, max: 999_999, unit: '' } as const satisfies Range;
/** Characters of a title, and of what the driver says. */
export const WRITTEN_LENGTHS = { title: 60, says: 280 } as const;

/** A case that somebody wrote: machine, faults, the driver's story, what is at hand, and the cold. */
export interface WrittenCase {
  readonly title: string;
  readonly machineClass: MachineClass;
  readonly tempC: number;
  /** Why it does not start. */
  readonly cause: Cause;
  /** The second fault; null for none. */
  readonly along: AlongCause | null;
  /** The driver's words for its behaviour: true or mistaken. */
  readonly symptom: Symptom;
  /** The driver's own words. */
  readonly says: string;
  /** The driver's answers, true or not; a question left out is answered as it is. */
  readonly answers: Readonly<Partial<Record<CheckId, string>>>;
  /** The kit of the van, by its id in `PRACTICE_KIT`; its tools follow from that. */
  readonly kit: readonly string[];
  readonly number: number;
}

/** Returns the questions for the driver of such a machine. */
export const questionsFor = (profile: DiagnosisProfile) =>
  CHECKS.filter(({ id, fits }) => id.startsWith('ask-') && (!fits || fits(profile)));

/** Why a written case is none. */
export const WRITTEN_FAULTS = [
  'unknown-machine',
  'cold-out-of-range',
  'number-out-of-range',
  'fault-not-of-machine',
  'along-not-of-machine',
  'unknown-symptom',
  'unknown-question',
  'unknown-answer',
  'unknown-kit',
  'text-too-long',
  'no-text',
  'text-broken',
] as const;
export type WrittenFault = (typeof WRITTEN_FAULTS)[number];

/** Every fault of a case whose fields are of the right types, each with its place: `answers.ask-use`, `kit.2`. None: it can be played. */
export function faultsOfWritten(
  written: WrittenCase,
): readonly { readonly path: string; readonly fault: WrittenFault }[] {
  const { machineClass, tempC, cause, along, symptom, answers, kit, number, title, says } = written;
  const faults: { path: string; fault: WrittenFault }[] = [];
  const tell = (isFault: boolean, path: string, fault: WrittenFault): void => {
    if (isFault) faults.push({ path, fault });
  };
  tell(title.trim() === '', 'title', 'no-text');
  tell(title.length > WRITTEN_LENGTHS.title, 'title', 'text-too-long');
  tell(says.length > WRITTEN_LENGTHS.says, 'says', 'text-too-long');
  // Half of a sign that takes two is in no alphabet.
  for (const [path, text] of [
    ['title', title],
    ['says', says],
  ] as const)
    tell(/[\ud800-\udfff]/u.test(text), path, 'text-broken');
  tell(!Number.isInteger(tempC) || outOfRange('', tempC, MADE_COLD) !== null, 'tempC', 'cold-out-of-range');
  tell(
    !Number.isInteger(number) || outOfRange('', number, WRITTEN_NUMBER) !== null,
    'number',
    'number-out-of-range',
  );
  tell(!SYMPTOMS.includes(symptom), 'symptom', 'unknown-symptom');
  kit.forEach((id, i) =>
    tell(kit.indexOf(id) < i || !PRACTICE_KIT.some((item) => item.id === id), `kit.${i}`, 'unknown-kit'),
  );
  if (!MACHINE_CLASSES.includes(machineClass)) {
    tell(true, 'machineClass', 'unknown-machine');
    return faults;
  }
  const profile = profileOf(machineClass, tempC);
  tell(!causesOf(machineClass).includes(cause), 'cause', 'fault-not-of-machine');
  tell(along !== null && !alongFor(machineClass, cause).includes(along), 'along', 'along-not-of-machine');
  const questions = questionsFor(profile);
  for (const [id, answer] of Object.entries(answers)) {
    const question = questions.find((check) => check.id === id);
    tell(!question, `answers.${id}`, 'unknown-question');
    tell(question !== undefined && !question.outcomes.includes(answer), `answers.${id}`, 'unknown-answer');
  }
  return faults;
}

/**
 * Returns the second faults of a machine that does not start because of this.
 *
 * @example alongFor('car', 'worn').includes('worn') // => false
 */
export function alongFor(machineClass: MachineClass, cause: Cause): readonly AlongCause[] {
  const possible = causesOf(machineClass);
  return ALONG_CAUSES.filter(
    (along) =>
      along !== cause &&
      possible.includes(along) &&
      !(along.startsWith('joint') && cause.startsWith('joint')),
  );
}

const MARK = 'written~';

/** The code of a written case: all of it is in the code. */
export const codeOfWritten = (written: WrittenCase): string => opaqueOf(nameOfWritten(written));

/** All of a written case as plain text. */
export const nameOfWritten = (written: WrittenCase): string =>
  MARK +
  encodeURIComponent(JSON.stringify(written))
    .replaceAll('.', '%2E')
    .replaceAll('~', '%7E')
    .replaceAll('%', '.');

/**
 * The written case that a code holds; null for a code that is cut short, changed or of no such case.
 *
 * @example readWrittenCode('written~') // => null
 */
export function readWrittenCode(code: string): WrittenCase | null {
  const plain = textOf(code) ?? code;
  if (!plain.startsWith(MARK)) return null;
  try {
    const text = decodeURIComponent(plain.slice(MARK.length).replaceAll('.', '%'));
    const given = JSON.parse(text) as Partial<WrittenCase>;
    // A value of another type has a fault, or throws on the way.
    const isTyped =
      typeof given.tempC === 'number' && typeof given.number === 'number' && given.along !== undefined;
    return isTyped && faultsOfWritten(given as WrittenCase).length === 0 ? (given as WrittenCase) : null;
  } catch {
    return null;
  }
}
