import type { ClampId } from '../src/circuit/index.js';
import {
  actByHand,
  type Circumstance,
  type HandAction,
  type HazardCode,
  hazardsOf,
  type HookupScene,
  NOTHING_CONNECTED,
  replan,
  rescueOf,
  safestOrder,
  type Severity,
  type WrongMetal,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { RAISED_REVS_FACTOR } from '../src/sources/index.js';
import { CAR, DONOR, EV, TRUCK } from './fixtures.js';
import { ALLOWING, optionNamed, run, sceneFor } from './scenes.js';

/**
 * Mistakes that lie in how things stand, with the severity and the figures of a hand check of the circuit; written before the
 * code that judges them was run. Each row is one mistake of the table of known ones.
 */
interface Row {
  readonly name: string;
  readonly machine?: Machine;
  readonly source?: string;
  readonly rest?: readonly number[];
  readonly more?: Partial<HookupScene>;
  readonly before: readonly HandAction[];
  readonly slip: HandAction;
  readonly code: HazardCode;
  readonly severity: Severity;
  /** Amps that the reason must tell, between these. */
  readonly amps?: readonly [number, number];
  readonly volts?: readonly [number, number];
}

const on = (clamp: ClampId, pointId: string, onto?: WrongMetal): HandAction => ({
  kind: 'attach',
  clamp,
  pointId,
  ...(onto && { onto }),
});
const off = (clamp: ClampId): HandAction => ({ kind: 'detach', clamp });
const is = (what: Circumstance): HandAction => ({ kind: 'circumstance', what, on: true });
const isNot = (what: Circumstance): HandAction => ({ kind: 'circumstance', what, on: false });
const confirm = (what: 'all-off' | 'guard-lamp' | 'negative-off'): HandAction => ({ kind: 'confirm', what });
const lay = (clamp: ClampId): HandAction => ({ kind: 'lay', clamp });
const bridge = (pointId: string): HandAction => ({ kind: 'bridge', pointId });
const pack = (isOn: boolean): HandAction => ({ kind: 'pack', on: isOn });
const engine: HandAction = { kind: 'donor-engine', running: true };
const crank: HandAction = { kind: 'crank' };
const SPARE_AMPS = DONOR.kind === 'donor' ? DONOR.alternatorSpareAmps : NaN;
const minusOff = confirm('negative-off');
const reds = [confirm('all-off'), on('redCasualty', 'plus'), on('redSource', 'plus')];
const three = [...reds, on('blackSource', 'minus')];
const joined = [...three, on('blackCasualty', 'ground')];
const packed = [confirm('all-off'), on('redCasualty', 'plus'), on('blackCasualty', 'ground')];

const ROWS: readonly Row[] = [
  // A keeper: 12.6 V behind 0.25 ohm and a spanner of 2 mohm: 50 A. A second battery: 12.6 V behind 8 + 2 mohm: 1,260 A.
  {
    name: 'spanner on plus, minus off, keeper on',
    before: [is('memory-keeper'), minusOff],
    slip: bridge('plus'),
    code: 'tool-short',
    severity: 'severe',
    amps: [49, 51],
  },
  {
    name: 'spanner on plus, minus off, second battery',
    before: [is('second-battery'), minusOff],
    slip: bridge('plus'),
    code: 'tool-short',
    severity: 'severe',
    amps: [1150, 1300],
  },
  {
    name: 'spanner on plus, minus off, charger on',
    before: [is('charger'), minusOff],
    slip: bridge('plus'),
    code: 'tool-short',
    severity: 'watch',
    amps: [14, 16],
  },
  {
    name: 'spanner on plus, minus off, sun on the panel',
    before: [is('solar-panel'), minusOff],
    slip: bridge('plus'),
    code: 'tool-short',
    severity: 'watch',
    amps: [7, 9],
  },
  {
    name: 'minus off with a keeper on',
    before: [is('memory-keeper')],
    slip: minusOff,
    code: 'still-fed',
    severity: 'watch',
    amps: [49, 51],
  },
  {
    name: 'minus off with a second battery',
    before: [is('second-battery')],
    slip: minusOff,
    code: 'still-fed',
    severity: 'watch',
    amps: [1150, 1300],
  },
  {
    name: 'minus off with a charger on',
    before: [is('charger')],
    slip: minusOff,
    code: 'still-fed',
    severity: 'watch',
    amps: [14, 16],
  },
  {
    name: 'minus off with a panel on',
    before: [is('solar-panel')],
    slip: minusOff,
    code: 'still-fed',
    severity: 'watch',
    amps: [7, 9],
  },
  {
    name: 'minus loosened with a keeper on',
    before: [is('memory-keeper')],
    slip: { kind: 'loosen', pointId: 'minus' },
    code: 'still-fed',
    severity: 'watch',
    amps: [49, 51],
  },
  {
    name: 'keeper put on after the minus is off',
    before: [minusOff],
    slip: is('memory-keeper'),
    code: 'still-fed',
    severity: 'watch',
    amps: [49, 51],
  },
  {
    name: 'sun comes out after the minus is off',
    before: [minusOff],
    slip: is('solar-panel'),
    code: 'still-fed',
    severity: 'watch',
    amps: [7, 9],
  },
  {
    name: 'keeper and panel together',
    before: [is('memory-keeper'), is('solar-panel'), minusOff],
    slip: bridge('plus'),
    code: 'tool-short',
    severity: 'severe',
    amps: [56, 60],
  },
  {
    name: 'spanner at the top of a string, minus off, second string',
    machine: TRUCK,
    source: 'lead@24',
    rest: [12.5, 12.5],
    before: [is('second-battery'), minusOff],
    slip: bridge('plus2'),
    code: 'tool-short',
    severity: 'severe',
    amps: [1200, 1500],
  },
  // Laid down: from the sound casualty through one lead of 25 mm2.
  {
    name: 'red laid on the donor’s body, live from the casualty',
    rest: [12.6],
    before: [confirm('all-off'), on('redCasualty', 'plus')],
    slip: lay('redSource'),
    code: 'laid-on-metal',
    severity: 'severe',
    amps: [150, 1500],
  },
  {
    name: 'red laid on the casualty, live from the donor',
    before: [
      confirm('all-off'),
      on('redSource', 'plus'),
      on('blackSource', 'minus'),
      on('blackCasualty', 'ground'),
    ],
    slip: lay('redCasualty'),
    code: 'laid-on-metal',
    severity: 'severe',
    amps: [300, 1800],
  },
  {
    name: 'red donor end laid down, both vehicles touching',
    rest: [12.6],
    before: [is('vehicles-touch'), confirm('all-off'), on('redCasualty', 'plus')],
    slip: lay('redSource'),
    code: 'laid-on-metal',
    severity: 'severe',
    amps: [150, 1500],
  },
  {
    name: 'red of an armed pack laid on the body',
    source: 'lead@12',
    before: [confirm('all-off'), on('blackCasualty', 'ground'), pack(true)],
    slip: lay('redCasualty'),
    code: 'laid-on-metal',
    severity: 'severe',
    amps: [200, 1800],
  },
  // Wrong metal.
  {
    name: 'last black on a fuel pipe',
    before: three,
    slip: on('blackCasualty', 'ground', 'pipe'),
    code: 'on-pipe',
    severity: 'severe',
  },
  {
    name: 'first black of a pack on a brake pipe',
    source: 'lead@12',
    before: reds.slice(0, 2),
    slip: on('blackCasualty', 'ground', 'pipe'),
    code: 'on-pipe',
    severity: 'severe',
  },
  {
    name: 'donor’s black on its air conditioning pipe',
    before: reds,
    slip: on('blackSource', 'minus', 'pipe'),
    code: 'on-pipe',
    severity: 'severe',
  },
  {
    name: 'last black on the belt pulley',
    before: three,
    slip: on('blackCasualty', 'ground', 'moving-part'),
    code: 'on-moving-part',
    severity: 'severe',
  },
  {
    name: 'last black on the wing',
    before: three,
    slip: on('blackCasualty', 'ground', 'thin-sheet'),
    code: 'on-thin-sheet',
    severity: 'watch',
  },
  {
    name: 'donor’s black on its bonnet hinge',
    before: reds,
    slip: on('blackSource', 'minus', 'thin-sheet'),
    code: 'on-thin-sheet',
    severity: 'watch',
  },
  {
    name: 'red on the bare post',
    before: [confirm('all-off')],
    slip: on('redCasualty', 'plus', 'bare-post'),
    code: 'on-bare-post',
    severity: 'note',
  },
  {
    name: 'donor’s red on the bare post',
    before: reds.slice(0, 2),
    slip: on('redSource', 'plus', 'bare-post'),
    code: 'on-bare-post',
    severity: 'note',
  },
  {
    name: 'black behind the casualty’s sensor',
    before: three,
    slip: on('blackCasualty', 'minus', 'battery-sensor'),
    code: 'past-the-sensor',
    severity: 'watch',
  },
  {
    name: 'black behind the donor’s sensor',
    before: reds,
    slip: on('blackSource', 'minus', 'battery-sensor'),
    code: 'past-the-sensor',
    severity: 'watch',
  },
  {
    name: 'red on the 48 V system',
    before: [confirm('all-off')],
    slip: on('redCasualty', 'plus', 'forty-eight-volts'),
    code: 'wrong-system',
    severity: 'severe',
    volts: [48, 48],
  },
  {
    name: 'donor’s red on its 48 V system',
    before: reds.slice(0, 2),
    slip: on('redSource', 'plus', 'forty-eight-volts'),
    code: 'wrong-system',
    severity: 'severe',
    volts: [48, 48],
  },
  {
    name: 'last black on an isolated hull',
    before: three,
    slip: on('blackCasualty', 'ground', 'isolated-body'),
    code: 'closes-nothing',
    severity: 'watch',
    amps: [0, 0.05],
  },
  {
    name: 'pack on, black on an isolated chassis',
    source: 'lead@12',
    before: [confirm('all-off'), on('redCasualty', 'plus'), on('blackCasualty', 'ground', 'isolated-body')],
    slip: pack(true),
    code: 'closes-nothing',
    severity: 'watch',
    amps: [0, 0.05],
  },
  {
    name: 'last black on the body, isolator open',
    before: [is('isolator-open'), ...three],
    slip: on('blackCasualty', 'ground'),
    code: 'closes-nothing',
    severity: 'watch',
    amps: [0, 0.05],
  },
  {
    name: 'isolator opened while all is on',
    before: joined,
    slip: is('isolator-open'),
    code: 'closes-nothing',
    severity: 'watch',
    amps: [0, 0.05],
  },
  {
    name: 'last black on a bench by a truck with its isolator open',
    machine: TRUCK,
    source: 'lead@24',
    rest: [12.1, 12.1],
    before: [
      is('isolator-open'),
      confirm('all-off'),
      on('redCasualty', 'plus2'),
      on('blackCasualty', 'ground'),
    ],
    slip: pack(true),
    code: 'closes-nothing',
    severity: 'watch',
    amps: [0, 0.05],
  },
  // Load dump by the isolator.
  {
    name: 'isolator opened with its engine running',
    rest: [12.4],
    more: { casualtyRuns: true },
    before: [],
    slip: is('isolator-open'),
    code: 'load-dump',
    severity: 'severe',
    volts: [30, 120],
  },
  // Engines.
  {
    name: 'clamp on while its engine runs',
    before: [is('casualty-engine-runs'), confirm('all-off')],
    slip: on('redCasualty', 'plus'),
    code: 'engine-runs',
    severity: 'watch',
  },
  {
    name: 'clamp off while its engine runs',
    before: [...joined, is('casualty-engine-runs')],
    slip: off('blackCasualty'),
    code: 'engine-runs',
    severity: 'watch',
  },
  {
    name: 'its engine fires with one clamp free',
    before: three,
    slip: is('casualty-engine-runs'),
    code: 'engine-runs',
    severity: 'watch',
  },
  {
    name: 'its engine fires into bare cells',
    source: 'hobby@12',
    rest: [12.4],
    before: [...packed, pack(true)],
    slip: is('casualty-engine-runs'),
    code: 'source-charged',
    severity: 'severe',
  },
  {
    name: 'its engine fires into a pack that is on',
    source: 'lithium@12',
    rest: [12.4],
    before: [...packed, pack(true)],
    slip: is('casualty-engine-runs'),
    code: 'source-charged',
    severity: 'watch',
  },
  {
    name: 'leads off at raised revs',
    before: [...joined, engine, is('donor-revs-raised')],
    slip: off('blackCasualty'),
    code: 'revs-raised',
    severity: 'watch',
  },
  {
    name: 'red off at raised revs',
    before: [...joined, engine, is('donor-revs-raised')],
    slip: off('redSource'),
    code: 'revs-raised',
    severity: 'watch',
  },
  // A battery at 6 V takes whatever a donor's alternator has to spare: the regulator is at its end.
  {
    name: 'donor started beside a battery at 6 V',
    rest: [6],
    before: joined,
    slip: engine,
    code: 'alternator-at-limit',
    severity: 'note',
    amps: [SPARE_AMPS * 0.99, SPARE_AMPS * 1.01],
  },
  {
    name: 'its revs raised into a battery at 6 V',
    rest: [6],
    before: [...joined, engine],
    slip: is('donor-revs-raised'),
    code: 'alternator-at-limit',
    severity: 'watch',
    amps: [SPARE_AMPS * RAISED_REVS_FACTOR * 0.99, SPARE_AMPS * RAISED_REVS_FACTOR * 1.01],
  },
  // A source that looks after itself: what was asked of it when it went off.
  {
    name: 'a pack goes off at once, on the wrong posts',
    source: 'lithium@12',
    rest: [12.4],
    before: [confirm('all-off'), on('redCasualty', 'minus'), on('blackCasualty', 'plus'), pack(true)],
    slip: is('source-tripped'),
    code: 'source-tripped',
    severity: 'severe',
    amps: [300, 5000],
  },
  {
    name: 'a pack goes off, rightly joined',
    source: 'lithium@12',
    rest: [11],
    before: [...packed, pack(true)],
    slip: is('source-tripped'),
    code: 'source-tripped',
    severity: 'watch',
    amps: [0, 300],
  },
  {
    name: 'it is switched on again before anybody knows why it went off',
    source: 'lithium@12',
    rest: [11],
    before: [...packed, confirm('guard-lamp'), pack(true), is('source-tripped'), pack(false)],
    slip: pack(true),
    code: 'source-tripped',
    severity: 'watch',
  },
  {
    name: 'cranked with a pack that has gone off',
    source: 'lithium@12',
    rest: [11],
    before: [...packed, pack(true), is('source-tripped')],
    slip: crank,
    code: 'source-tripped',
    severity: 'watch',
  },
  // It can move.
  {
    name: 'crank with a gear in',
    before: [...joined, is('gear-engaged')],
    slip: crank,
    code: 'may-move',
    severity: 'severe',
  },
  {
    name: 'crank unchocked',
    before: [...joined, is('not-secured')],
    slip: crank,
    code: 'may-move',
    severity: 'severe',
  },
  {
    name: 'crank a truck with a gear in',
    machine: TRUCK,
    source: 'lead@24',
    rest: [12.1, 12.1],
    before: [
      confirm('all-off'),
      on('redCasualty', 'plus2'),
      on('blackCasualty', 'ground'),
      pack(true),
      is('gear-engaged'),
    ],
    slip: crank,
    code: 'may-move',
    severity: 'severe',
  },
  { name: 'a gear found in', before: [], slip: is('gear-engaged'), code: 'may-move', severity: 'watch' },
  { name: 'found unchocked', before: [], slip: is('not-secured'), code: 'may-move', severity: 'watch' },
  // Vehicles touch: 20 mohm of hinges in the way of what the last clamp should have closed.
  {
    name: 'vehicles touch with three on: the loop is closed already',
    rest: [6],
    before: three,
    slip: is('vehicles-touch'),
    code: 'vehicles-touch',
    severity: 'watch',
    amps: [20, 400],
  },
  {
    name: 'vehicles touch with nothing on',
    before: [],
    slip: is('vehicles-touch'),
    code: 'vehicles-touch',
    severity: 'watch',
    amps: [0, 0.5],
  },
  {
    name: 'second red on while the vehicles touch, backwards',
    rest: [12.6],
    before: [is('vehicles-touch'), confirm('all-off'), on('redCasualty', 'plus')],
    slip: on('redSource', 'minus'),
    code: 'dead-short',
    severity: 'severe',
    amps: [150, 900],
  },
  // The plus on the body.
  {
    name: 'found with its plus on the body',
    before: [],
    slip: is('positive-earth'),
    code: 'positive-earth',
    severity: 'severe',
  },
  {
    name: 'red on, plus on the body',
    before: [is('positive-earth'), confirm('all-off')],
    slip: on('redCasualty', 'plus'),
    code: 'positive-earth',
    severity: 'severe',
  },
  {
    name: 'black on, plus on the body',
    before: [is('positive-earth'), ...three],
    slip: on('blackCasualty', 'ground'),
    code: 'positive-earth',
    severity: 'severe',
  },
  // Two spare batteries in series, the link across one of them: 12.7 V through one battery and 1.2 mohm.
  {
    name: 'series link across one battery',
    machine: TRUCK,
    source: 'spares@24+heavy',
    rest: [12.1, 12.1],
    before: [],
    slip: is('series-link-wrong'),
    code: 'link-short',
    severity: 'severe',
    amps: [500, 3000],
  },
  // Left out.
  {
    name: 'first clamp with the lamps still on',
    before: [],
    slip: on('redCasualty', 'plus'),
    code: 'not-all-off',
    severity: 'watch',
  },
  {
    name: 'first clamp of an EV with the key in',
    machine: { ...EV, points: CAR.points },
    rest: [11],
    before: [],
    slip: on('redCasualty', 'plus'),
    code: 'not-all-off',
    severity: 'watch',
  },
  {
    name: 'first clamp of a pack, nothing switched off',
    source: 'lithium@12',
    before: [],
    slip: on('redCasualty', 'plus'),
    code: 'not-all-off',
    severity: 'watch',
  },
  {
    name: 'pack on, lamp not looked at',
    source: 'lithium@12',
    before: packed,
    slip: pack(true),
    code: 'guard-not-seen',
    severity: 'watch',
  },
];

function sceneOf({ machine = CAR, source = 'donor+heavy', rest, more }: Partial<Row>): HookupScene {
  const readings = rest ?? machine.batteries.map(() => 11.8);
  const option = optionNamed(machine, source, readings);
  expect(option).withContext(source).toBeDefined();
  return sceneFor(machine, option, readings, more);
}

describe('mistakes that lie in how things stand', () => {
  for (const row of ROWS)
    it(row.name, () => {
      const scene = sceneOf(row);
      const found = hazardsOf(scene, run(scene.machine, row.before), row.slip, ALLOWING);
      const caught = found.find((h) => h.code === row.code);
      expect(caught).withContext(JSON.stringify(found)).toBeDefined();
      expect(caught!.severity).withContext(JSON.stringify(found)).toBe(row.severity);
      for (const [figure, range] of [
        [caught!.amps, row.amps],
        [caught!.volts, row.volts],
      ] as const)
        if (range) {
          expect(figure).withContext(JSON.stringify(caught)).toBeGreaterThanOrEqual(range[0]);
          expect(figure).withContext(JSON.stringify(caught)).toBeLessThanOrEqual(range[1]);
        }
    });

  it('bring the table of known mistakes to a hundred and ten with those of the hook-up', () => {
    expect(ROWS.length).toBeGreaterThanOrEqual(55);
    expect(new Set(ROWS.map((r) => r.name)).size).toBe(ROWS.length);
  });

  it('none of it is raised by an order that is followed', () => {
    for (const source of ['donor+heavy', 'lithium@12', 'lead@12', 'charger@12']) {
      const scene = sceneOf({ source });
      let state = NOTHING_CONNECTED;
      for (const { action } of safestOrder(scene, 3, ALLOWING)) {
        const codes: string[] = hazardsOf(scene, state, action, ALLOWING).map((h) => h.code);
        for (const code of ['not-all-off', 'guard-not-seen', 'closes-nothing', 'still-fed', 'engine-runs'])
          expect(codes)
            .withContext(`${source} ${JSON.stringify(action)}`)
            .not.toContain(code);
        state = actByHand(state, action, scene.machine);
      }
    }
  });

  it('a clamp on the wrong metal comes off first, and goes on again where it belongs', () => {
    const scene = sceneOf({});
    const order = safestOrder(scene, 3, ALLOWING);
    for (const onto of ['pipe', 'moving-part', 'isolated-body', 'thin-sheet'] as const) {
      const state = run(CAR, [...three, on('blackCasualty', 'ground', onto)]);
      const { next, later } = replan(scene, order, state, ALLOWING);
      expect(next!.action).withContext(onto).toEqual({ kind: 'detach', clamp: 'blackCasualty' });
      const end = [next!, ...later].reduce((s, { action }) => actByHand(s, action, CAR), state);
      expect(end.clamps.blackCasualty).toBe('ground');
      expect(end.onto?.blackCasualty).toBeUndefined();
    }
  });

  it('what is noted can be taken back, and the hazard goes with it', () => {
    const scene = sceneOf({});
    const noted = run(CAR, [...joined, is('gear-engaged')]);
    expect(hazardsOf(scene, noted, crank, ALLOWING).some((h) => h.code === 'may-move')).toBeTrue();
    const back = actByHand(noted, isNot('gear-engaged'), CAR);
    expect(hazardsOf(scene, back, crank, ALLOWING).some((h) => h.code === 'may-move')).toBeFalse();
  });

  it('a source that has gone off gives nothing, and gives again once it is told that it is on', () => {
    const scene = sceneOf({ source: 'lithium@12', rest: [11] });
    const isOn = (more: readonly HandAction[]): boolean =>
      rescueOf(scene, run(CAR, [...packed, pack(true), ...more])).sourceOn;
    expect(isOn([])).toBeTrue();
    expect(isOn([is('source-tripped')])).toBeFalse();
    expect(isOn([is('source-tripped'), isNot('source-tripped')])).toBeTrue();
  });

  it('an alternator that a part-charged battery asks little of is not at its end', () => {
    const codes = hazardsOf(sceneOf({ rest: [12.6] }), run(CAR, joined), engine, ALLOWING).map((h) => h.code);
    expect(codes).not.toContain('alternator-at-limit');
  });

  it('raised revs lend what their factor says', () => {
    const scene = sceneOf({ rest: [11.4] });
    const lent = (before: readonly HandAction[]): number =>
      rescueOf(scene, run(CAR, [...before, engine])).source!.alternator!.maxAmps;
    expect(lent([...joined, is('donor-revs-raised')]) / lent(joined)).toBeCloseTo(RAISED_REVS_FACTOR, 9);
    expect(lent([is('donor-revs-raised'), isNot('donor-revs-raised')])).toBe(lent([]));
  });
});
