import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CALC_OUTPUTS, CALC_VERBS, type CalcVerb } from '@voltrek/contracts/calc';
import { traceFileOf } from '@voltrek/contracts';
import {
  batteryOhms,
  type BatteryRating,
  batteryOpenVolts,
  convertCca,
  socFromRestVolts,
} from '@voltrek/core/battery';
import { bankFallVolts, equalise } from '@voltrek/core/capacitor';
import { aloneRescue } from '@voltrek/core/circuit';
import type { Engine } from '@voltrek/core/engine';
import { recordTry } from '@voltrek/core/practice';
import { bankOf } from '@voltrek/core/sources';
import { answer } from '../src/calc/command.js';

const DOCS = join(import.meta.dirname, '../../../docs');
const RESCUE = JSON.parse(readFileSync(join(DOCS, 'examples/rescue.json'), 'utf8')) as Record<
  string,
  unknown
>;

const HOOKUP = JSON.parse(readFileSync(join(DOCS, 'examples/hookup.json'), 'utf8')) as Record<
  string,
  unknown
>;
const DIAGNOSE = readFileSync(join(DOCS, 'examples/diagnose.json'), 'utf8');
const { waitMinutes: _wait, ...SCENE } = HOOKUP;
const SWAPPED = [
  { kind: 'attach', clamp: 'redCasualty', pointId: 'minus' },
  { kind: 'attach', clamp: 'redSource', pointId: 'plus' },
];

const BANK = {
  bank: { cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 },
  volts: 14.4,
  minVolts: 10.5,
  amps: 200,
  secondsEach: 1.5,
};
const EQUALISE = { highVolts: 14.4, lowVolts: 8.4, highFarads: 58, lowFarads: 58, ohms: 1, safeVolts: 0.5 };
const RATING = { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' };
const CHARGE = {
  rating: RATING,
  soc: 0.2,
  targetSoc: 0.9,
  amps: 10,
  tempC: 10,
  startAmps: 200,
  drainAmps: 0.05,
};
/** A logged try of a worn battery, from the simulator. */
const LOGGED = (() => {
  const rating = RATING as BatteryRating;
  const engine: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
  const state = { soc: 0.85, tempC: 5, ageing: 2.5 };
  const model = { openVolts: batteryOpenVolts(rating, state), ohms: batteryOhms(rating, state) };
  const crank = {
    engine,
    batteries: [{ rating, state }],
    seconds: 3,
    rescue: aloneRescue([model], 5),
  };
  const recording = recordTry({
    crank,
    restSeconds: 1,
    keyOnAmps: 12,
    keyOnSeconds: 1,
    afterSeconds: 3,
    chargingVolts: null,
    stepSeconds: 0.002,
  });
  return { csv: traceFileOf(recording), systemVolts: 12, engine, rating, tempC: 5 };
})();

const INPUTS: Record<CalcVerb, object> = {
  soc: { chemistry: 'flooded', tempC: -4, restVolts: 11.9 },
  crank: { ...RESCUE, seconds: 0.5, trace: true },
  odds: { ...RESCUE, samples: 60 },
  wait: { ...RESCUE, minutes: 2, samples: 20 },
  leads: { ...RESCUE, samples: 5 },
  spice: RESCUE,
  capacitor: BANK,
  equalise: EQUALISE,
  charge: CHARGE,
  diagnose: JSON.parse(DIAGNOSE) as object,
  verdict: { ...(JSON.parse(DIAGNOSE) as object), earlierFlatCalls: 1 },
  trace: LOGGED,
  hookup: HOOKUP,
  check: { ...SCENE, actions: SWAPPED },
  makesafe: { ...SCENE, actions: SWAPPED },
};

const call = (verb: string, input: unknown) => answer([verb], () => JSON.stringify(input));
function give(verb: CalcVerb, input: unknown = INPUTS[verb]): Record<string, number> {
  const { out, err, code } = call(verb, input);
  expect(err).toBe('');
  expect(code).toBe(0);
  return JSON.parse(out) as Record<string, number>;
}

describe('calc', () => {
  it('gives what its own output schema says, for every verb', () => {
    for (const verb of CALC_VERBS) {
      const output: unknown = give(verb);
      expect(() => CALC_OUTPUTS[verb].validateSync(output, { strict: true, abortEarly: false }))
        .withContext(verb)
        .not.toThrow();
    }
  });

  it('is the core, nothing else', () => {
    expect(give('soc').soc).toBe(socFromRestVolts('flooded', 11.9, -4).soc);
    expect(give('equalise').joules).toBeCloseTo(equalise(EQUALISE, 0.5).joules, 9);
    expect(give('capacitor').fallByChargeVolts).toBeCloseTo(
      bankFallVolts(bankOf(BANK.bank), 200, 1.5).charge,
      9,
    );
    expect(convertCca(100, 'EN', 'SAE')).toBeCloseTo(104, 9);
  });

  it('agrees with itself: the wait’s first minute is the odds without a wait', () => {
    const odds = give('odds', { ...RESCUE, waitMinutes: 0, samples: 200, seed: 5 });
    const wait = give('wait', { ...RESCUE, minutes: 1, samples: 200, seed: 5 });
    expect((wait.start as unknown as number[])[0]).toBe(odds.start);
  });

  it('orders, checks and makes safe as the core does, each step with its hazards in words', () => {
    interface Step {
      action: { kind: string; clamp?: string };
      hazards: { code: string; severity: string; says: string }[];
    }
    const stepsOf = (verb: CalcVerb): Step[] => (give(verb) as unknown as { steps: Step[] }).steps;
    const clamps = stepsOf('hookup').flatMap(({ action }) =>
      action.kind === 'attach' ? [action.clamp] : [],
    );
    expect(clamps).toEqual(['redCasualty', 'redSource', 'blackSource', 'blackCasualty']);
    expect(
      stepsOf('hookup')
        .flatMap((s) => s.hazards)
        .some((h) => h.severity === 'severe'),
    ).toBeFalse();
    const [first] = stepsOf('check');
    expect(first!.hazards[0]).toEqual(jasmine.objectContaining({ code: 'will-short', severity: 'severe' }));
    expect(first!.hazards[0]!.says).toMatch(/^Stop: Wrong place: .* \d+ A/);
    expect(stepsOf('makesafe').map(({ action }) => action.kind)).toEqual(['detach', 'detach']);
  });

  it('describes its input and output as JSON Schema', () => {
    for (const verb of CALC_VERBS) {
      const { out, code } = answer(['schema', verb], () => '');
      expect(code).toBe(0);
      const schema = JSON.parse(out) as { input: { required: string[]; properties: object } };
      for (const name of schema.input.required) expect(Object.keys(schema.input.properties)).toContain(name);
    }
    const soc = JSON.parse(answer(['schema', 'soc'], () => '').out) as {
      input: { properties: { tempC: object } };
    };
    expect(soc.input.properties.tempC).toEqual({
      type: 'number',
      minimum: -50,
      maximum: 60,
      description: 'degC',
    });
  });

  it('names the path and the reason of a wrong input, and ends with 2', () => {
    const wrong: [CalcVerb, object, RegExp][] = [
      ['soc', { chemistry: 'flooded', tempC: -4, restVolts: 30 }, /restVolts: .*16/],
      ['soc', { chemistry: 'flooded', tempC: -4 }, /restVolts or gravities/],
      ['soc', { chemistry: 'stone', tempC: -4, restVolts: 12 }, /chemistry: /],
      ['crank', { ...RESCUE, leads: { ...(RESCUE.leads as object), lengthM: -1 } }, /leads\.lengthM: .*0\.1/],
      ['crank', { ...RESCUE, leads: undefined }, /a source needs leads/],
      [
        'crank',
        { ...RESCUE, engine: { ...(RESCUE.engine as object), systemVolts: 24 } },
        /24 V system has 2/,
      ],
      ['crank', { ...RESCUE, extra: 1 }, /extra/],
      ['capacitor', { ...BANK, bank: { ...BANK.bank, cellFarads: 0 } }, /bank\.cellFarads: .*0\.001/],
      ['equalise', { ...EQUALISE, ohms: 0 }, /ohms: /],
      ['charge', { ...CHARGE, targetSoc: 0.1 }, /must rise/],
      ['check', { ...SCENE, actions: [{ kind: 'attach', clamp: 'redCasualty' }] }, /actions\[0\].*pointId/],
      ['check', { ...SCENE, actions: [{ kind: 'dance' }] }, /actions\[0\]\.kind/],
      ['check', { ...SCENE, actions: [{ kind: 'loosen', pointId: 'nowhere' }] }, /no point nowhere/],
      ['hookup', { ...HOOKUP, donor: undefined }, /donor/],
      ['hookup', { ...HOOKUP, restVolts: [11, 12] }, /one for each of the 1 batteries/],
      ['hookup', { ...HOOKUP, restVolts: [-9] }, /battery 1 is reversed: nothing is joined to it/],
      ['hookup', { ...HOOKUP, restVolts: [8.5], tempC: -12 }, /battery 1 is frozen: nothing is joined to it/],
    ];
    for (const [verb, input, why] of wrong) {
      const { out, err, code } = call(verb, input);
      expect(code).withContext(verb).toBe(2);
      expect(out).toBe('');
      expect(err).withContext(verb).toMatch(why);
    }
  });

  it('says how it is called when it is called wrongly, and what is no JSON', () => {
    expect(answer([], () => '').err).toMatch(/one of soc/);
    expect(answer(['boil'], () => '').code).toBe(2);
    expect(answer(['schema'], () => '').code).toBe(2);
    expect(answer(['soc'], () => '{').err).toMatch(/not JSON/);
  });

  it('diagnose gives suspects from evidence, and refuses what a check cannot find', () => {
    const { out, code } = answer(['diagnose'], () => DIAGNOSE);
    expect(code).toBe(0);
    const { suspicions, proposals } = JSON.parse(out) as {
      suspicions: { cause: string; share: number }[];
      proposals: { check: string; worth: number }[];
    };
    expect(suspicions[0]!.cause).toBe('worn');
    expect(suspicions[0]!.share).toBeGreaterThan(0.75);
    // Two may be there at once, so the shares come to one or more.
    expect(suspicions.reduce((sum, s) => sum + s.share, 0)).toBeGreaterThanOrEqual(1 - 1e-9);
    const worths = proposals.map((p) => p.worth);
    expect(worths).toEqual([...worths].sort((a, b) => b - a));
    const wrong = answer(['diagnose'], () => DIAGNOSE.replace('"clean"', '"purple"'));
    expect(wrong.code).toBe(2);
    expect(wrong.err).toContain('evidence[1].found: look-joints finds turns-by-hand, deposits, rust, clean');
    const said = JSON.parse(out) as { suspicions: { pushes: { check: string; found: unknown }[] }[] };
    expect(said.suspicions[0]!.pushes.find((p) => p.check === 'conductance')!.found).toBe(270);
  });

  it('diagnose takes figures as the instrument shows them, and refuses what none can show', () => {
    const { evidence, ...machine } = JSON.parse(DIAGNOSE) as { evidence: object[] };
    const told = (check: string, found: number, more: object[] = []) =>
      answer(['diagnose'], () => JSON.stringify({ ...machine, evidence: [...more, { check, found }] }));
    for (const [check, found] of [
      ['conductance', 0.5],
      ['rest', 99],
      ['crank', -2],
      ['drain', -5],
      ['ripple', 40],
      ['joint-plus', 99],
      ['with-help', 3],
      ['charging', 60],
    ] as const) {
      const { code, err } = told(check, found);
      expect(code).withContext(`${check} ${found}`).toBe(2);
      expect(err).withContext(check).toContain('evidence[0].found: ');
    }
    expect(told('rest', 99).err).toMatch(/-16 and 18 V/);
    expect(told('key-on', 11.2).err).toMatch(/give rest as well/);
    expect(told('key-on', 11.2, [{ check: 'rest', found: 12.1 }]).code).toBe(0);
    for (const [check, found] of [
      ['conductance', 410],
      ['rest', -3],
    ] as const)
      expect(told(check, found).code).withContext(check).toBe(0);
    expect(evidence.length).toBeGreaterThan(0);
  });

  it('check judges how things stand, with the word and the figure that make it so', () => {
    const said = (actions: object[]): string => {
      const { steps } = give('check', { ...INPUTS.check, actions }) as unknown as {
        steps: { hazards: { says: string }[] }[];
      };
      return steps
        .at(-1)!
        .hazards.map((h) => h.says)
        .join(' ');
    };
    const so = (what: string) => ({ kind: 'circumstance', what, on: true });
    const on = (onto?: string) => ({
      kind: 'attach',
      clamp: 'blackCasualty',
      pointId: 'ground',
      ...(onto && { onto }),
    });
    const minusOff = { kind: 'confirm', what: 'negative-off' };
    for (const [actions, words] of [
      [[so('memory-keeper'), minusOff], /plus stays live.*50 A/],
      [[so('solar-panel'), minusOff], /plus stays live.*8 A/],
      [[on('pipe')], /fuel, brake fluid or refrigerant/],
      [[on('moving-part')], /Fan, belt and pulleys/],
      [[on('thin-sheet')], /thin or hinged metal/],
      [[on('battery-sensor')], /sensor on the minus post/],
      [[on('forty-eight-volts')], /48 V system/],
      [[on()], /have not been seen off/],
      [[so('gear-engaged'), { kind: 'crank' }], /Gear out, brake on/],
      [[so('positive-earth')], /plus is on the body/],
      [[so('vehicles-touch')], /vehicles touch/],
    ] as const)
      expect(said([...actions]))
        .withContext(JSON.stringify(actions))
        .toMatch(words);
  });

  it('verdict rests on the diagnosis, and a stop goes before it', () => {
    const told = give('verdict') as unknown as { verdict: string; ledger: unknown[] };
    expect(told.verdict).toMatch(/^replace/);
    expect(told.ledger.length).toBeGreaterThan(1);
    const stopped = give('verdict', { ...INPUTS.verdict, stops: ['frozen'] }) as unknown as {
      verdict: string;
    };
    expect(stopped.verdict).toBe('unsafe');
  });

  it('trace finds the crank and the strength of the battery, and names a bad line', () => {
    const told = give('trace') as unknown as { crank: { rpm: number }; strength: { ageing: number } };
    expect(told.crank.rpm).toBeGreaterThan(100);
    expect(Math.abs(told.strength.ageing / 2.5 - 1)).toBeLessThan(0.15);
    const lines = LOGGED.csv.split('\n');
    lines[40] = 'oops,12,0';
    const { err, code } = call('trace', { ...LOGGED, csv: lines.join('\n') });
    expect(code).toBe(2);
    expect(err).toContain('Line 41');
  });
});
