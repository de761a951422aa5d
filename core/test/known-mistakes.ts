import type { ClampId } from '../src/circuit/index.js';
import {
  type HandAction,
  type Hazard,
  type HazardCode,
  type HookupAction,
  type HookupScene,
  SPARE_POSTS,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import type { DonorKit, KitItem } from '../src/sources/index.js';
import { CAR, CLOSED, DONOR, EV, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { optionNamed, run } from './scenes.js';

const on = (clamp: ClampId, pointId: string) => ({ kind: 'attach', clamp, pointId }) as const;
const off = (clamp: ClampId): HookupAction => ({ kind: 'detach', clamp });
const pack = (isOn: boolean): HookupAction => ({ kind: 'pack', on: isOn });
const engine: HookupAction = { kind: 'donor-engine', running: true };
const plug: HookupAction = { kind: 'plug', in: true };
const crank: HandAction = { kind: 'crank' };
const ev: Machine = { ...EV, points: CAR.points };
const sound: readonly number[] = [12.6];
const flat: readonly number[] = [11.7];

/** A slip that hands make, and what the circuit must say of it. */
export interface Mistake {
  readonly name: string;
  readonly machine?: Machine;
  readonly source?: string;
  readonly rest?: readonly number[];
  readonly kit?: readonly KitItem[];
  readonly more?: Partial<HookupScene>;
  readonly before: readonly HandAction[];
  readonly slip: HandAction;
  readonly code: HazardCode;
  /** Least severity expected; `note` for what is only told. Left out: severe. */
  readonly least?: 'note' | 'watch';
}
const threeOn = [on('redCasualty', 'plus'), on('redSource', 'plus'), on('blackSource', 'minus')];
const joined = [...threeOn, on('blackCasualty', 'ground')];
const packed = [on('redCasualty', 'plus'), on('blackCasualty', 'ground')];
const spares = (id: string): Pick<Mistake, 'source'> => ({ source: id });
const donorKit = DONOR as DonorKit;
const low: KitItem = { ...donorKit, id: 'truck', systemVolts: 24 };

/** Mistakes that people are known to have made at a hook-up. */
export const KNOWN_MISTAKES: readonly Mistake[] = [
  {
    name: 'red and black swapped at the casualty, red first',
    before: [],
    slip: on('redCasualty', 'minus'),
    code: 'will-short',
  },
  { name: 'red on the ground point', before: [], slip: on('redCasualty', 'ground'), code: 'will-short' },
  {
    name: 'red on the donor’s minus',
    before: [on('redCasualty', 'plus')],
    slip: on('redSource', 'minus'),
    code: 'will-short',
  },
  {
    name: 'red on the donor’s body',
    before: [on('redCasualty', 'plus')],
    slip: on('redSource', 'ground'),
    code: 'will-short',
  },
  {
    name: 'black on the donor’s plus',
    before: [on('redCasualty', 'plus'), on('redSource', 'plus')],
    slip: on('blackSource', 'plus'),
    code: 'will-short',
  },
  {
    name: 'black on the casualty’s plus',
    before: threeOn,
    slip: on('blackCasualty', 'plus'),
    code: 'dead-short',
  },
  {
    name: 'both swapped at the casualty, last clamp closes it',
    rest: sound,
    before: [on('redCasualty', 'minus'), on('redSource', 'plus'), on('blackSource', 'minus')],
    slip: on('blackCasualty', 'plus'),
    code: 'dead-short',
  },
  {
    name: 'both swapped at the casualty, foreseen at the third',
    rest: sound,
    before: [on('redCasualty', 'minus'), on('redSource', 'plus')],
    slip: on('blackSource', 'minus'),
    code: 'will-short',
  },
  {
    name: 'both swapped at the donor, last clamp closes it',
    rest: sound,
    before: [on('redCasualty', 'plus'), on('redSource', 'minus'), on('blackSource', 'plus')],
    slip: on('blackCasualty', 'ground'),
    code: 'dead-short',
  },
  {
    name: 'both swapped onto a dead battery: its electronics see the volts backwards',
    rest: [1],
    before: [on('redCasualty', 'minus'), on('redSource', 'plus'), on('blackSource', 'minus')],
    slip: on('blackCasualty', 'plus'),
    code: 'reversed',
  },
  {
    name: 'pack swapped, then armed',
    source: 'lead@12',
    rest: sound,
    before: [on('redCasualty', 'ground'), on('blackCasualty', 'plus')],
    slip: pack(true),
    code: 'dead-short',
  },
  {
    name: 'pack’s red on the ground point',
    source: 'lead@12',
    before: [],
    slip: on('redCasualty', 'ground'),
    code: 'will-short',
  },
  {
    name: 'pack’s black on plus after red',
    source: 'lead@12',
    before: [on('redCasualty', 'plus')],
    slip: on('blackCasualty', 'plus'),
    code: 'will-short',
  },
  {
    name: 'last clamp on the battery’s own terminal',
    before: threeOn,
    slip: on('blackCasualty', 'minus'),
    code: 'spark-in-gas',
    least: 'watch',
  },
  {
    name: 'last clamp on an abused battery',
    rest: [6],
    before: threeOn,
    slip: on('blackCasualty', 'minus'),
    code: 'spark-in-gas',
  },
  {
    name: 'last clamp on a battery closed into the boot',
    machine: CLOSED,
    rest: flat,
    before: threeOn,
    slip: on('blackCasualty', 'minus'),
    code: 'spark-in-gas',
  },
  {
    name: 'last clamp red, on the battery',
    rest: [6],
    before: [on('redSource', 'plus'), on('blackSource', 'minus'), on('blackCasualty', 'ground')],
    slip: on('redCasualty', 'plus'),
    code: 'spark-in-gas',
  },
  {
    name: 'in a closed shed',
    more: { enclosed: true },
    before: threeOn,
    slip: on('blackCasualty', 'minus'),
    code: 'spark-in-gas',
  },
  {
    name: 'charger plugged in before it is clamped',
    source: 'charger@12',
    before: [],
    slip: plug,
    code: 'plugged-too-early',
  },
  {
    name: 'charger plugged in with one clamp on',
    source: 'charger@12',
    before: [on('redCasualty', 'plus')],
    slip: plug,
    code: 'plugged-too-early',
  },
  {
    name: 'clamp put on while the charger is plugged in',
    source: 'charger@12',
    before: [plug],
    slip: on('redCasualty', 'plus'),
    code: 'plugged-too-early',
  },
  {
    name: 'clamp taken off while the charger is on',
    source: 'charger@12',
    before: [...packed, plug, pack(true)],
    slip: off('blackCasualty'),
    code: 'source-still-on',
  },
  {
    name: 'crank with an ordinary charger on',
    source: 'charger@12',
    before: [...packed, plug, pack(true)],
    slip: crank,
    code: 'crank-on-charger',
  },
  {
    name: 'charger switched on over a battery closed into the boot',
    machine: CLOSED,
    source: 'charger@12',
    before: packed,
    slip: pack(true),
    code: 'closed-in-charging',
    least: 'watch',
  },
  {
    name: 'pack armed before it is clamped',
    source: 'lithium@12',
    before: [],
    slip: pack(true),
    code: 'armed-too-early',
  },
  {
    name: 'pack armed with one clamp on',
    source: 'lead@12',
    before: [on('redCasualty', 'plus')],
    slip: pack(true),
    code: 'armed-too-early',
  },
  {
    name: 'clamp put on while the pack is on',
    source: 'lead@12',
    before: [on('redCasualty', 'plus'), pack(true)],
    slip: on('blackCasualty', 'ground'),
    code: 'source-still-on',
  },
  {
    name: 'clamp taken off while the pack is on',
    source: 'lithium@12',
    before: [...packed, pack(true)],
    slip: off('redCasualty'),
    code: 'source-still-on',
  },
  {
    name: 'positive taken off first with a spanner',
    before: [],
    slip: { kind: 'loosen', pointId: 'plus' },
    code: 'positive-first',
  },
  {
    name: 'battery taken out with the leads still on',
    before: joined,
    slip: { kind: 'loosen', pointId: 'minus' },
    code: 'loosened-while-joined',
  },
  {
    name: 'spanner from plus to body',
    before: [],
    slip: { kind: 'bridge', pointId: 'plus' },
    code: 'tool-short',
  },
  {
    name: 'spanner at the middle joint of a string',
    machine: TRUCK,
    source: 'lead@24',
    rest: [12.5, 12.5],
    before: [],
    slip: { kind: 'bridge', pointId: 'plus1' },
    code: 'tool-short',
  },
  {
    name: 'spanner at the top of a string',
    machine: TRUCK,
    source: 'lead@24',
    rest: [12.5, 12.5],
    before: [],
    slip: { kind: 'bridge', pointId: 'plus2' },
    code: 'tool-short',
  },
  {
    name: '12 V donor across a 24 V string',
    machine: TRUCK,
    source: 'donor+heavy',
    rest: [12.4, 12.4],
    before: threeOn.map((a) => (a.clamp === 'redCasualty' ? on('redCasualty', 'plus2') : a)),
    slip: on('blackCasualty', 'ground'),
    code: 'dead-short',
  },
  {
    name: '12 V donor across a 24 V string, foreseen at the first clamp',
    machine: TRUCK,
    source: 'donor+heavy',
    rest: [12.4, 12.4],
    before: [],
    slip: on('redCasualty', 'plus2'),
    code: 'will-short',
  },
  {
    name: '12 V pack across a 24 V string',
    machine: TRUCK,
    source: 'lead@12',
    rest: [12.4, 12.4],
    before: [on('redCasualty', 'plus2'), on('blackCasualty', 'ground')],
    slip: pack(true),
    code: 'over-voltage-source',
  },
  {
    name: '24 V pack on a 12 V car',
    source: 'lead@24',
    rest: flat,
    before: packed,
    slip: pack(true),
    code: 'over-voltage',
  },
  {
    name: '24 V donor on a 12 V car',
    source: 'truck+heavy',
    rest: flat,
    kit: [low, ...KIT],
    before: threeOn,
    slip: on('blackCasualty', 'ground'),
    code: 'over-voltage',
  },
  {
    name: 'pack meant for one battery put across the body',
    machine: TRUCK,
    source: 'lead@12#battery1',
    rest: [12.6, 12.5],
    before: [on('redCasualty', 'plus2'), on('blackCasualty', 'ground')],
    slip: pack(true),
    code: 'over-voltage-source',
  },
  { name: 'donor running into an EV', machine: ev, before: joined, slip: engine, code: 'ev-donor-running' },
  {
    name: 'an EV lends to a cranking engine',
    more: { donor: ev },
    before: [],
    slip: on('redCasualty', 'plus'),
    code: 'ev-as-donor',
  },
  {
    name: 'donor running into a motorcycle’s small battery',
    machine: MOTORCYCLE,
    rest: [12.5],
    source: 'runner+heavy',
    kit: [{ ...donorKit, id: 'runner', alternatorSpareAmps: 100 }, ...KIT],
    before: joined,
    slip: engine,
    code: 'over-charges-battery',
    least: 'watch',
  },
  {
    name: 'capacitor bank joined at unequal volts',
    source: 'cap@12',
    rest: [12.4],
    before: packed,
    slip: pack(true),
    code: 'unequal-sources',
    least: 'watch',
  },
  {
    name: 'a bank at 18 V onto a sound battery',
    source: 'full@12',
    rest: sound,
    kit: [{ ...KIT.find((k) => k.kind === 'capacitor-booster')!, id: 'full', volts: 18 }, ...KIT],
    before: packed,
    slip: pack(true),
    code: 'unequal-sources',
    least: 'watch',
  },
  {
    name: 'free clamps of a live lead pair touch',
    before: [on('redSource', 'plus'), on('blackSource', 'minus')],
    slip: { kind: 'touch', a: 'redCasualty', b: 'blackCasualty' },
    code: 'clamps-touch',
  },
  {
    name: 'free donor ends touch, live from the casualty',
    rest: sound,
    before: packed,
    slip: { kind: 'touch', a: 'redSource', b: 'blackSource' },
    code: 'clamps-touch',
  },
  {
    name: 'both donor clamps first leaves two live ends',
    before: [on('redSource', 'plus')],
    slip: on('blackSource', 'minus'),
    code: 'two-live-free-clamps',
    least: 'watch',
  },
  {
    name: 'red on the donor first leaves a strong live end',
    before: [],
    slip: on('redSource', 'plus'),
    code: 'live-free-clamp',
    least: 'note',
  },
  { name: 'crank with a clamp hanging free', before: threeOn, slip: crank, code: 'crank-with-free-clamp' },
  {
    name: 'hobby pack asked for more than it stands',
    source: 'hobby@12',
    before: [...packed, pack(true)],
    slip: crank,
    code: 'over-current',
  },
  {
    name: 'lithium battery without posts, from outside',
    machine: {
      ...CAR,
      batteries: [{ ...CAR.batteries[0]!, rating: { ...CAR.batteries[0]!.rating, chemistry: 'lfp' } }],
    },
    rest: [13.1],
    before: [],
    slip: on('redCasualty', 'plus'),
    code: 'lithium-from-outside',
  },
  {
    name: 'last clamp pulled first from an abused battery that is charging',
    rest: [6],
    more: { casualtyRuns: true },
    before: joined,
    slip: off('redCasualty'),
    code: 'spark-in-gas',
  },
  {
    name: 'leads pulled off a charging engine with nothing switched on',
    more: { casualtyRuns: true },
    rest: [12],
    before: [...joined, engine],
    slip: off('blackCasualty'),
    code: 'spike',
    least: 'note',
  },
  {
    name: 'spare batteries in series onto a 12 V car',
    ...spares('spares@24+heavy'),
    rest: flat,
    before: [
      on('redCasualty', 'plus'),
      on('redSource', SPARE_POSTS.plus),
      on('blackSource', SPARE_POSTS.minus),
    ],
    slip: on('blackCasualty', 'ground'),
    code: 'over-voltage',
  },
  {
    name: 'spare battery the wrong way round',
    ...spares('spares@12+heavy'),
    rest: sound,
    before: [
      on('redCasualty', 'plus'),
      on('redSource', SPARE_POSTS.minus),
      on('blackSource', SPARE_POSTS.plus),
    ],
    slip: on('blackCasualty', 'ground'),
    code: 'dead-short',
  },
];

/** The scene of the mistake: the machine, the readings of its batteries, the source in hand, and the hook-up as far as it has come. */
export function placeOf({ machine = CAR, source = 'donor+heavy', rest, kit = KIT, before }: Mistake) {
  const readings = rest ?? (machine.batteries.length > 1 ? [11.9, 11.9] : [11.8]);
  const option = optionNamed(machine, source, readings, kit);
  expect(option).withContext(source).toBeDefined();
  return { machine, kit, readings, option, hookup: run(machine, before) };
}

/** The finding has it, as severe as it is. */
export function expectCaught({ code, least }: Mistake, found: readonly Hazard[]): void {
  const caught = found.find((hazard) => hazard.code === code);
  expect(caught).withContext(JSON.stringify(found)).toBeDefined();
  if (!least) expect(caught!.severity).withContext(JSON.stringify(found)).toBe('severe');
  if (least === 'watch') expect(caught!.severity).not.toBe('note');
}
