import {
  type HandAction,
  type Hazard,
  hazardsAsIs,
  hazardsOf,
  type HookupScene,
  type HookupState,
  NOTHING_CONNECTED,
  actByHand,
} from '../src/hookup/index.js';
import { batteryOhms } from '../src/battery/index.js';
import type { Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { type SourceOption, sourceOptions } from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import { CAR, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { run } from './scenes.js';

const RULES: HouseRules = { ...DEFAULT_RULES, hobbyLithium: 'allowed' };
const TEMP_C = 10;

function scene(
  machine: Machine,
  id: string,
  rest: readonly number[],
  more: Partial<HookupScene> = {},
): HookupScene {
  const batteries = casualtyBatteries(machine, rest, TEMP_C);
  const options = sourceOptions(machine, KIT, batteries, TEMP_C, RULES);
  const option: SourceOption | undefined = options.find((o) => o.id.startsWith(id));
  if (!option) throw new Error(`no ${id}: ${options.map((o) => o.id).join()}`);
  return {
    machine,
    donor: option.sourceKind === 'donor' ? CAR : null,
    option,
    batteries,
    tempC: TEMP_C,
    enclosed: false,
    casualtyRuns: false,
    ...more,
  };
}

/** The hazards of the last of these acts. */
function lastOf(of: HookupScene, acts: readonly HandAction[]): Hazard[] {
  const state = acts
    .slice(0, -1)
    .reduce<HookupState>((s, a) => actByHand(s, a, of.machine), NOTHING_CONNECTED);
  return hazardsOf(of, state, acts.at(-1)!, RULES);
}

const on = (
  clamp: 'redCasualty' | 'redSource' | 'blackSource' | 'blackCasualty',
  pointId: string,
): HandAction => ({ kind: 'attach', clamp, pointId });
const PACK_ON: readonly HandAction[] = [
  on('redCasualty', 'plus'),
  on('blackCasualty', 'ground'),
  { kind: 'pack', on: true },
];
const severityOf = (hazards: readonly Hazard[], code: string): string | undefined =>
  hazards.find((h) => h.code === code)?.severity;

describe('hazards of a machine that runs', () => {
  it('its own battery off the circuit: the alternator finds nothing to hold its volts', () => {
    const running = scene(CAR, 'donor', [12.6], { casualtyRuns: true });
    for (const acts of [
      [{ kind: 'loosen', pointId: 'minus' }],
      [{ kind: 'loosen', pointId: 'plus' }],
      [{ kind: 'confirm', what: 'negative-off' }],
    ] as const) {
      const dump = lastOf(running, acts).find((h) => h.code === 'load-dump');
      expect(dump?.severity).withContext(JSON.stringify(acts)).toBe('severe');
      expect(dump!.volts!).toBeGreaterThan(40);
    }
    const truck = lastOf(scene(TRUCK, 'lead@24', [12.6, 12.6], { casualtyRuns: true }), [
      { kind: 'loosen', pointId: 'minus1' },
    ]);
    expect(truck.find((h) => h.code === 'load-dump')!.volts!).toBeGreaterThan(80);
  });

  it('leads that come off while nothing else holds the volts', () => {
    const running = scene(CAR, 'donor+heavy', [12.6], { casualtyRuns: true });
    const joined: readonly HandAction[] = [
      on('redCasualty', 'plus'),
      on('redSource', 'plus'),
      on('blackSource', 'minus'),
      on('blackCasualty', 'ground'),
    ];
    const withoutOwn = [
      { kind: 'loosen', pointId: 'minus' } as const,
      ...joined,
      { kind: 'detach', clamp: 'blackCasualty' } as const,
    ];
    expect(severityOf(lastOf(running, withoutOwn), 'load-dump')).toBe('severe');
    expect(
      severityOf(lastOf(running, [...joined, { kind: 'detach', clamp: 'blackCasualty' }]), 'load-dump'),
    ).toBeUndefined();
  });

  it('is no load dump while the engine stands', () => {
    const still = scene(CAR, 'donor', [12.6]);
    expect(severityOf(lastOf(still, [{ kind: 'loosen', pointId: 'minus' }]), 'load-dump')).toBeUndefined();
    expect(
      severityOf(lastOf(still, [{ kind: 'confirm', what: 'negative-off' }]), 'load-dump'),
    ).toBeUndefined();
  });

  it('charges what is joined to it: severe for bare lithium cells, watch for a guarded pack, nothing for lead', () => {
    const charged = (id: string) => lastOf(scene(CAR, id, [12.6], { casualtyRuns: true }), PACK_ON);
    expect(severityOf(charged('hobby'), 'source-charged')).toBe('severe');
    expect(severityOf(charged('lithium@12'), 'source-charged')).toBe('watch');
    expect(severityOf(charged('lead@12'), 'source-charged')).toBeUndefined();
    // A machine that stands charges nothing.
    expect(severityOf(lastOf(scene(CAR, 'hobby', [11.9]), PACK_ON), 'source-charged')).toBeUndefined();
  });
});

describe('each battery and each source by itself', () => {
  it('a 24 V source across one battery of a string is over-voltage on that battery, though the string stands it', () => {
    const truck = scene(TRUCK, 'lead@24', [12.2, 12.2]);
    const acts: readonly HandAction[] = [
      on('redCasualty', 'plus'),
      on('blackCasualty', 'ground'),
      { kind: 'pack', on: true },
    ];
    const joint = TRUCK.points.find((p) => p.kind === 'battery-positive' && (p.battery ?? 0) === 0);
    expect(joint).toBeDefined();
    const wrong = [on('redCasualty', joint!.id), ...acts.slice(1)];
    expect(severityOf(lastOf(truck, wrong), 'battery-over-voltage')).toBe('severe');
    const top = TRUCK.points.find(
      (p) => p.kind === 'red-post' || (p.kind === 'battery-positive' && p.battery === 1),
    )!;
    expect(
      severityOf(lastOf(truck, [on('redCasualty', top.id), ...acts.slice(1)]), 'battery-over-voltage'),
    ).toBeUndefined();
  });

  const wholeString: readonly HandAction[] = [
    on('redCasualty', TRUCK.points.find((p) => p.kind === 'battery-positive' && p.battery === 1)!.id),
    on('blackCasualty', 'ground'),
    { kind: 'pack', on: true },
  ];
  const OHMS_AT = { soc: 0, tempC: TEMP_C, overDischargedVolts: 6.6 };
  /** The hazards of the last of these acts in a scene that is known to be as it stands. */
  const asIs = (of: HookupScene, acts: readonly HandAction[]): Hazard[] =>
    hazardsAsIs(of, run(of.machine, acts.slice(0, -1)), acts.at(-1)!, RULES);

  it('a whole-string source lifts the old one of two empty batteries over what it stands: told before, by what may be', () => {
    const truck = scene(TRUCK, 'lead@24', [6.6, 7.5]);
    const [uneven] = lastOf(truck, wholeString).filter(({ code }) => code === 'string-uneven');
    expect(uneven?.story).toBe('uneven-string');
    expect(uneven?.severity).toBe('watch');
    // By hand: one current through the source, the leads and both batteries; it puts their own ohms' volts on each.
    const { openVolts, ohms } = truck.option.source;
    const { models, beliefs } = truck.batteries;
    const old = { openVolts: 6.6, ohms: batteryOhms(beliefs[0]!.rating, { ...OHMS_AT, ageing: 5 }) };
    const fellow = batteryOhms(beliefs[1]!.rating, { ...OHMS_AT, overDischargedVolts: 7.5, ageing: 1 });
    expect(fellow).toBeLessThan(models[1]!.ohms);
    const most = (openVolts - 6.6 - 7.5) / (ohms + old.ohms + fellow);
    expect(uneven!.amps!).toBeLessThan(most);
    expect(uneven!.amps!).toBeGreaterThan(0.9 * most);
    expect(uneven!.volts!).toBeCloseTo(old.openVolts + uneven!.amps! * old.ohms, 1);
    // Known to be alike, they share alike; and what still has charge has no ohms to speak of.
    expect(asIs(truck, wholeString)).toEqual([]);
    expect(
      severityOf(lastOf(scene(TRUCK, 'lead@24', [11.9, 11.4]), wholeString), 'string-uneven'),
    ).toBeUndefined();
  });

  it('far over what any cell stands it is severe, and across one battery alone it is no matter of sharing', () => {
    const truck = scene(TRUCK, 'lead@24', [6.6, 7.5]);
    const joinedTo = (ohms: number, fellowVolts: number): HookupScene => ({
      ...truck,
      batteries: {
        ...truck.batteries,
        models: [
          { openVolts: 6.6, ohms },
          { openVolts: fellowVolts, ohms: 0.05 },
        ],
      },
    });
    expect(severityOf(asIs(joinedTo(0.5, 7.5), wholeString), 'string-uneven')).toBe('watch');
    expect(severityOf(asIs(joinedTo(3, 2), wholeString), 'string-uneven')).toBe('severe');
    const joint = TRUCK.points.find((p) => p.kind === 'battery-positive' && (p.battery ?? 0) === 0)!;
    const across = [on('redCasualty', joint.id), ...wholeString.slice(1)];
    expect(severityOf(asIs(joinedTo(0.5, 7.5), across), 'battery-over-voltage')).toBe('severe');
    expect(severityOf(asIs(joinedTo(0.5, 7.5), across), 'string-uneven')).toBeUndefined();
  });

  it('a weak battery of a string is not lifted over its limit by a whole-string source without a word', () => {
    expect(lastOf(scene(TRUCK, 'lead@24', [12.7, 9]), wholeString).length).toBeGreaterThan(0);
  });

  it('a bank of capacitors above what its cells stand is severe, at its limit it is not', () => {
    const car = scene(CAR, 'cap@12', [12.6]);
    const { option } = car;
    const source = option.source;
    const above = { ...car, option: { ...option, source: { ...source, openVolts: 17 } } };
    expect(severityOf(lastOf(above, PACK_ON), 'bank-over-voltage')).toBe('severe');
    expect(severityOf(lastOf(car, PACK_ON), 'bank-over-voltage')).toBeUndefined();
  });

  it('two regulators at once are told', () => {
    const both = scene(CAR, 'donor+heavy', [12.4], { casualtyRuns: true });
    const joined: readonly HandAction[] = [
      on('redCasualty', 'plus'),
      on('redSource', 'plus'),
      on('blackSource', 'minus'),
      on('blackCasualty', 'ground'),
      { kind: 'donor-engine', running: true },
    ];
    expect(severityOf(lastOf(both, joined), 'two-regulators')).toBe('note');
    expect(
      severityOf(lastOf(scene(MOTORCYCLE, 'donor+heavy', [12.4]), joined), 'two-regulators'),
    ).toBeUndefined();
  });
});
