import { SYMPTOMS } from '../diagnosis/vocabulary.js';
import { drawHidden } from '../diagnosis/draw-hidden.js';
import { type Cause, CAUSES, priorsFor } from '../diagnosis/causes.js';
import { lookOf } from '../diagnosis/hidden.js';
import { NOTHING_CONNECTED } from '../hookup/state.js';
import { MACHINE_CLASSES, type MachineClass } from '../machine/machine.js';
import { pick, type Random, seededRandom } from '../quantities/random.js';
import { outOfRange, type Range } from '../quantities/range.js';
import { DEFAULT_RULES } from '../rules/house-rules.js';
import { templateOf } from '../template/template.js';
import { answerOf } from './hidden-case.js';
import { PRACTICE_KIT, PRACTICE_TOOLS } from './kit.js';
import { type Rung, RUNG_IDS, type RungId, rungOf } from './rungs.js';
import { mayBeBarred, type World } from './world.js';

/** A case is drawn anew where it is none, so often at the most. */
const DRAWN_MOST = 40;

/** What a case is drawn from where somebody made it: its machine, its fault and its cold. */
export interface MadeCase {
  readonly machineClass: MachineClass;
  readonly cause: Cause;
  readonly tempC: number;
}
/** What a code names: a case of a rung, or one that was made. */
export type CaseNamed = { readonly number: number } & (
  | { readonly rung: RungId; readonly made: null }
  | { readonly rung: null; readonly made: MadeCase }
);

/** The code of a case: its rung and a number. */
export const codeOfCase = (rung: RungId, number: number): string => `${rung}-${number}`;

/** The code of a case that somebody made: all of it is in the code, so that a link is enough to share it. */
export const codeOfMade = ({ machineClass, cause, tempC }: MadeCase, number: number): string =>
  `made~${machineClass}~${cause}~${tempC}~${number}`;

/** The code of what a code names, with another number. */
export const codeOf = (named: CaseNamed, number: number): string =>
  named.made ? codeOfMade(named.made, number) : codeOfCase(named.rung, number);

/** Colder and hotter than this no case is made, degC. */
export const MADE_COLD = { min: -30, max: 40, unit: '°C' } as const satisfies Range;

/** What can be wrong with a machine of this class, likeliest first. */
export function causesOf(machineClass: MachineClass): readonly Cause[] {
  const { systemVolts, engine, batteries } = templateOf(machineClass);
  const profile = { machineClass, systemVolts, engine, rating: batteries[0]!.rating, tempC: 0 };
  return [...priorsFor(profile)]
    .filter(([cause]) => cause !== 'none')
    .sort(([, a], [, b]) => b - a)
    .map(([cause]) => cause);
}

/** What a code names; null for what is none. */
export function readCaseCode(code: string): CaseNamed | null {
  const text = code.trim().toLowerCase();
  const [, name, digits] = /^([a-z-]+)-(\d{1,6})$/.exec(text) ?? [];
  const rung = RUNG_IDS.find((id) => id === name);
  if (rung && digits) return { rung, made: null, number: Number(digits) };
  const [, of, why, cold, count] = /^made~([a-z-]+)~([a-z-]+)~(-?\d{1,2})~(\d{1,6})$/.exec(text) ?? [];
  const machineClass = MACHINE_CLASSES.find((id) => id === of);
  const cause = CAUSES.find((id) => id === why);
  const tempC = Number(cold);
  if (!machineClass || !cause || !count || outOfRange('', tempC, MADE_COLD) !== null) return null;
  if (!causesOf(machineClass).includes(cause)) return null;
  return { rung: null, made: { machineClass, cause, tempC }, number: Number(count) };
}

/** A number of a text: the same for the same text. */
export function seedOf(text: string): number {
  let seed = 2166136261;
  for (let i = 0; i < text.length; i++) seed = Math.imul(seed ^ text.charCodeAt(i), 16777619) >>> 0;
  return seed;
}

/**
 * The case of a code, before anything is done: the same to everybody.
 *
 * @throws RangeError for a code that is none
 * @example startCase('order-12').practice.machine.machineClass // 'car'
 */
export function startCase(code: string): World {
  const read = readCaseCode(code);
  if (!read) throw new RangeError(`${code} is no code of a case`);
  const { rung, made, number } = read;
  const name = made ? codeOfMade(made, number) : codeOfCase(rung, number);
  const random = seededRandom(seedOf(name));
  const { machineClass: of, cause, tempC } = made ?? drawnOf(rungOf(rung), random);
  const machine = { ...templateOf(of), maker: '' };
  const { machineClass, systemVolts, engine, batteries } = machine;
  const profile = { machineClass, systemVolts, engine, rating: batteries[0]!.rating, tempC };
  let hidden = drawHidden(cause, profile, random);
  // What starts by itself is no case, and what may be ice is one of its own rung.
  const isNone = (): boolean =>
    (engine !== null && lookOf(hidden, profile, false) === 'starts') ||
    (rung !== null && rung !== 'stop' && mayBeBarred({ practice: { profile, hidden } }));
  for (let i = 0; i < DRAWN_MOST && isNone(); i++) hidden = drawHidden(cause, profile, random);
  const said = String(answerOf('symptom', hidden, profile, random));
  return {
    practice: {
      code: name,
      rung,
      machine,
      donor: templateOf('van'),
      kit: PRACTICE_KIT,
      tools: PRACTICE_TOOLS,
      tempC,
      profile,
      rules: DEFAULT_RULES,
      said: SYMPTOMS.some((symptom) => symptom === said) ? said : SYMPTOMS[0],
      hidden,
    },
    hidden,
    minutes: 0,
    option: null,
    hookup: NOTHING_CONNECTED,
    runs: false,
    evidence: [{ check: 'symptom', found: said }],
    log: [],
    takenBack: [],
    hints: [],
    verdict: null,
  };
}

/** What a case of a rung is drawn from. */
function drawnOf({ classes, causes, cold }: Rung, random: Random): MadeCase {
  const machineClass = pick(random, classes);
  const tempC = Math.round(cold[0] + (cold[1] - cold[0]) * random());
  return { machineClass, tempC, cause: pick(random, causes) };
}
