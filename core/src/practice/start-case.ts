import { SYMPTOMS } from '../diagnosis/vocabulary.js';
import { drawHidden } from '../diagnosis/draw-hidden.js';
import type { Tool } from '../diagnosis/checks.js';
import { lookOf } from '../diagnosis/hidden.js';
import { NOTHING_CONNECTED } from '../hookup/state.js';
import { drawWeighted, type Random, seededRandom } from '../quantities/random.js';
import { DEFAULT_RULES } from '../rules/house-rules.js';
import type { KitItem } from '../sources/kit.js';
import { USUAL_KIT } from '../sources/usual-kit.js';
import { templateOf } from '../template/template.js';
import { answerOf } from './hidden-case.js';
import { RUNG_IDS, type RungId, rungOf } from './rungs.js';
import { mayBeBarred, type World } from './world.js';

/** The van of the one who practises lends this. */
const DONOR: KitItem = {
  kind: 'donor',
  id: 'donor',
  name: 'Service van',
  modelId: 'unknown-van',
  systemVolts: 12,
  battery: { chemistry: 'agm', capacityAh: 92, ccaAmps: 850, ccaStandard: 'EN' },
  soc: 0.95,
  alternatorSpareAmps: 80,
};
const KIT: readonly KitItem[] = [
  DONOR,
  ...Object.entries(USUAL_KIT).map(([id, item]) => ({ ...item, id }) as KitItem),
];
const TOOLS: readonly Tool[] = ['meter', 'clamp-meter', 'tester', 'load-tester', 'source'];

/** A case is drawn anew where it is none, so often at the most. */
const DRAWN_MOST = 40;

/** The code of a case: its rung and a number. */
export const codeOfCase = (rung: RungId, number: number): string => `${rung}-${number}`;

/** The rung and number of a code; null for what is none. */
export function readCaseCode(code: string): { readonly rung: RungId; readonly number: number } | null {
  const [, name, digits] = /^([a-z-]+)-(\d{1,6})$/.exec(code.trim().toLowerCase()) ?? [];
  const rung = RUNG_IDS.find((id) => id === name);
  return rung && digits ? { rung, number: Number(digits) } : null;
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
  const { rung, number } = read;
  const name = codeOfCase(rung, number);
  const random = seededRandom(seedOf(name));
  const { classes, causes, cold } = rungOf(rung);
  const machine = { ...templateOf(pick(random, classes)), maker: '' };
  const tempC = Math.round(cold[0] + (cold[1] - cold[0]) * random());
  const { machineClass, systemVolts, engine, batteries } = machine;
  const profile = { machineClass, systemVolts, engine, rating: batteries[0]!.rating, tempC };
  const cause = pick(random, causes);
  let hidden = drawHidden(cause, profile, random);
  // What starts by itself is no case, and what may be ice is one of its own rung.
  const isNone = (): boolean =>
    (engine !== null && lookOf(hidden, profile, false) === 'starts') ||
    (rung !== 'stop' && mayBeBarred({ practice: { profile, hidden } }));
  for (let i = 0; i < DRAWN_MOST && isNone(); i++) hidden = drawHidden(cause, profile, random);
  const said = String(answerOf('symptom', hidden, profile, random));
  return {
    practice: {
      code: name,
      rung,
      machine,
      donor: templateOf('van'),
      kit: KIT,
      tools: TOOLS,
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

const pick = <T>(random: Random, list: readonly T[]): T =>
  drawWeighted(
    random,
    list.map((item) => [item, 1] as const),
  );
