import {
  CAUSES,
  type Cause,
  type CheckId,
  checkOf,
  crankLimitVolts,
  CHECKS,
  type Crowd,
  type DiagnosisEvidence,
  drawHidden,
  type Found,
  type HiddenMachine,
  isWeighed,
  SUSPECT_OF,
  type Tool,
} from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { type Case, conclude, proofOf, showsSound, type VerdictRecord } from '../src/verdict/index.js';
import { BATTERY_60, CAR } from './fixtures.js';

const PROFILE = {
  machineClass: 'car',
  systemVolts: 12,
  engine: CAR.engine,
  rating: BATTERY_60,
  tempC: 10,
} as const;
const SOUND = drawHidden('none', PROFILE, seededRandom(1));

/** Chances of a check, machine by machine in the order that they are given. */
type Chances = Partial<Record<CheckId, readonly (readonly number[])[]>>;

/**
 * A crowd of one machine for each cause, or pair of causes joined by a plus, with its share. No check moves it, save those
 * whose chances are given: so every share that a ruling sees is known.
 */
function crowdOf(shares: Readonly<Record<string, number>>, chances: Chances = {}): Crowd {
  const causes = Object.keys(shares).map((key) => key.split('+') as Cause[]);
  const machines = causes.map(
    (holds): HiddenMachine => ({
      ...SOUND,
      cause: holds[0]!,
      holds,
      batteries: [{ soc: 0.9, tempC: 10, ageing: holds.includes('worn') ? 3 : 1 }],
    }),
  );
  const flat = (id: CheckId): number[] => machines.flatMap(() => checkOf(id).outcomes.map(() => 1));
  const known = new Map<string, Float64Array>(
    CHECKS.filter(isWeighed).map(({ id }) => [id, Float64Array.from(chances[id]?.flat() ?? flat(id))]),
  );
  return {
    profile: PROFILE,
    machines,
    causeAt: Uint8Array.from(causes, ([cause]) => CAUSES.indexOf(cause!)),
    holdsAt: Uint32Array.from(causes, (holds) =>
      holds.reduce((bits, cause) => (bits | (1 << CAUSES.indexOf(cause))) >>> 0, 0),
    ),
    shares: Float64Array.from(Object.values(shares)),
    known,
    repairs: [],
    before: [],
    tried: new Map(),
  };
}

type Findings = Partial<Record<CheckId, Found>>;
const evidenceOf = (found: Findings): DiagnosisEvidence[] =>
  (Object.entries(found) as [CheckId, Found][]).map(([check, what]) => ({ check, found: what }));
const CHARGED = 12.7;
const FLAT = 11.9;
const factsOf = (restVolts: readonly (number | null)[], more: Partial<Case> = {}): Case => ({
  chemistry: 'flooded',
  wakes: false,
  tempC: 10,
  stops: [],
  restVolts,
  earlierFlatCalls: 0,
  diedInService: false,
  ...more,
});
const ruled = (
  shares: Readonly<Record<string, number>>,
  found: Findings,
  restVolts: number | null,
  more: Partial<Case> = {},
  { chances = {}, tools = [] }: { chances?: Chances; tools?: readonly Tool[] } = {},
): VerdictRecord =>
  conclude(crowdOf(shares, chances), evidenceOf(found), factsOf([restVolts], more), tools, DEFAULT_RULES);

/** A share a little above and a little below. */
const ABOVE = 0.005;

describe('the ruling, by shares that are known', () => {
  type Row = [
    name: string,
    shares: Record<string, number>,
    found: Findings,
    restVolts: number | null,
    expected: [verdict: string, ground: string, suspect: string | null, certainty: string],
    more?: Partial<Case>,
  ];
  const tested = { conductance: 0.5 } as const;
  const worn = { conductance: 0.75 } as const;
  const sound = { conductance: 0.95 } as const;
  const ROWS: Row[] = [
    ['nothing was found', { worn: 1 }, {}, null, ['not-known', 'no-evidence', null, 'unsure']],
    [
      'a stop stands',
      { worn: 1 },
      tested,
      CHARGED,
      ['unsafe', 'stop-stands', null, 'sure'],
      { stops: ['case-damaged'] },
    ],
    ['it reads backwards', { worn: 1 }, tested, -11.9, ['unsafe', 'reversed-by-volts', null, 'sure']],
    [
      'it is ice',
      { discharged: 1 },
      tested,
      11.5,
      ['unsafe', 'frozen-by-volts', null, 'sure'],
      { tempC: -20 },
    ],
    [
      'it froze in the night',
      { discharged: 1 },
      tested,
      11.5,
      ['unsafe', 'frozen-by-volts', null, 'sure'],
      { tempC: 3, coldestC: -20 },
    ],
    ...(
      [
        ['its posts stood lower while a key was turned and nothing drew amps', 'silence', 11.6, 'unsafe'],
        ['the same, with lamps bright', 'silence-bright', 11.6, 'unsafe'],
        ['a stuck starter pulled it down', 'silence', 9.4, 'not-known'],
        ['it clicked: something drew amps', 'rapid-click', 11.6, 'not-known'],
      ] as const
    ).map(
      ([name, symptom, posts, verdict]): Row => [
        `ice by the rest volts it is not, and ${name}`,
        { discharged: 0.5, worn: 0.5 },
        { symptom, crank: posts - crankLimitVolts(-15, 12) },
        12.84,
        [
          verdict,
          verdict === 'unsafe' ? 'frozen-by-volts' : 'load-it-now',
          null,
          verdict === 'unsafe' ? 'sure' : 'unsure',
        ],
        { tempC: -15 },
      ],
    ),
    [
      'ice by the rest volts it is not, and it stood lower a minute after a silent key',
      { discharged: 0.5, worn: 0.5 },
      { symptom: 'silence', recovery: 10.3 },
      11.9,
      ['unsafe', 'frozen-by-volts', null, 'sure'],
      { tempC: -9 },
    ],
    [
      'unread and likelier ice than not',
      { 'discharged+frozen': 0.51, worn: 0.49 },
      worn,
      null,
      ['unsafe', 'frozen-likely', null, 'sure'],
    ],
    [
      'unread and as likely not',
      { 'discharged+frozen': 0.5, 'left-on': 0.5 },
      { symptom: 'silence' },
      null,
      ['charge-first', 'discharged-not-bad', null, 'sure'],
    ],
    [
      'proved spent, and likely enough',
      { worn: 0.9, discharged: 0.1 },
      tested,
      CHARGED,
      ['replace-now', 'proved-spent', null, 'sure'],
    ],
    [
      'proved spent, not quite likely enough',
      { worn: 0.9 - ABOVE, discharged: 0.1 + ABOVE },
      tested,
      CHARGED,
      ['replace-soon', 'proved-worn', null, 'fairly-sure'],
    ],
    [
      'the same figure of a flat battery',
      { worn: 0.6, discharged: 0.4 },
      tested,
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
    ],
    [
      'proved worn, and likely enough',
      { worn: 0.82, discharged: 0.18 },
      worn,
      CHARGED,
      ['replace-soon', 'proved-worn', null, 'fairly-sure'],
    ],
    [
      'proved worn, not quite likely enough',
      { worn: 0.82 - ABOVE, discharged: 0.18 + ABOVE },
      worn,
      CHARGED,
      ['not-known', 'load-it-now', null, 'unsure'],
    ],
    ...(['joint-negative', 'joint-positive', 'joint-loose', 'cable', 'starter', 'seized'] as const).map(
      (masking): Row => [
        `a figure a little low that ${masking} pulls down as well`,
        { [`worn+${masking}`]: 0.9, discharged: 0.1 },
        worn,
        CHARGED,
        ['not-the-battery', 'fault-elsewhere', SUSPECT_OF[masking], 'sure'],
      ],
    ),
    [
      'the same figure beside a fault that pulls nothing down',
      { 'worn+fuel': 0.9, discharged: 0.1 },
      worn,
      CHARGED,
      ['replace-soon', 'proved-worn', 'fuel-or-engine', 'sure'],
    ],
    [
      'a figure that only a spent battery shows, beside a bad joint',
      { 'worn+joint-negative': 0.9, discharged: 0.1 },
      tested,
      CHARGED,
      ['replace-now', 'proved-spent', 'joint', 'sure'],
    ],
    [
      'another part leads',
      { starter: 0.55, discharged: 0.45 },
      sound,
      CHARGED,
      ['not-the-battery', 'fault-elsewhere', 'starter', 'unsure'],
    ],
    [
      'another part is likely, and flat is likelier',
      { 'starter+discharged': 0.55, discharged: 0.45 },
      { symptom: 'silence' },
      FLAT,
      ['charge-first', 'discharged-not-bad', 'starter', 'sure'],
    ],
    [
      'a bad belt is the charging fault',
      { charging: 0.8, worn: 0.2 },
      { 'look-belt': 'bad' },
      FLAT,
      ['not-the-battery', 'fault-elsewhere', 'belt', 'fairly-sure'],
    ],
    [
      'a sound belt is not',
      { charging: 0.8, worn: 0.2 },
      { 'look-belt': 'sound', 'joint-plus': 'bad' },
      FLAT,
      ['not-the-battery', 'fault-elsewhere', 'charging', 'fairly-sure'],
    ],
    [
      'a bad belt beside another fault',
      { starter: 0.95, worn: 0.05 },
      { 'look-belt': 'bad' },
      FLAT,
      ['not-the-battery', 'fault-elsewhere', 'starter', 'sure'],
    ],
    [
      'a spent battery and what spoiled it',
      { 'worn+drain': 0.95, worn: 0.05 },
      tested,
      CHARGED,
      ['replace-now', 'proved-spent', 'drain', 'sure'],
    ],
    [
      'sound and charged',
      { none: 0.7, worn: 0.1, starter: 0.2 },
      sound,
      CHARGED,
      ['keep', 'sound-and-charged', null, 'sure'],
    ],
    [
      'sound and charged, and other parts together likelier',
      { starter: 0.3, cable: 0.3, none: 0.4 },
      sound,
      CHARGED,
      ['not-known', 'undecided', null, 'unsure'],
    ],
    [
      'other parts together exactly half',
      { starter: 0.25, cable: 0.25, none: 0.5 },
      sound,
      CHARGED,
      ['keep', 'sound-and-charged', null, 'sure'],
    ],
    [
      'it starts by itself',
      { starter: 0.3, cable: 0.3, none: 0.4 },
      { 'try-alone': 'started' },
      CHARGED,
      ['keep', 'sound-and-charged', null, 'sure'],
    ],
    [
      'it starts with help only',
      { starter: 0.3, cable: 0.3, none: 0.4 },
      { 'with-help': 'started' },
      CHARGED,
      ['not-known', 'undecided', null, 'unsure'],
    ],
    [
      'it does not start by itself',
      { starter: 0.3, cable: 0.3, none: 0.4 },
      { 'try-alone': 'clicks' },
      CHARGED,
      ['not-known', 'undecided', null, 'unsure'],
    ],
    [
      'charged, sound by a test, and more likely bad than not',
      { worn: 0.55, none: 0.45 },
      sound,
      CHARGED,
      ['not-known', 'load-it-now', null, 'unsure'],
    ],
    [
      'neither the battery nor one part',
      { starter: 0.3, cable: 0.3, discharged: 0.4 },
      { symptom: 'silence' },
      FLAT,
      ['not-known', 'undecided', null, 'unsure'],
    ],
    [
      'the battery by half',
      { starter: 0.25, cable: 0.25, discharged: 0.5 },
      { symptom: 'silence' },
      FLAT,
      ['charge-first', 'discharged-not-bad', null, 'unsure'],
    ],
    [
      'charged, and nothing loaded it',
      { discharged: 0.5, worn: 0.5 },
      { symptom: 'silence' },
      CHARGED,
      ['not-known', 'load-it-now', null, 'unsure'],
    ],
    [
      'flat, and a part that looks like it likelier, not sure',
      { 'joint-positive': 0.9 - ABOVE, discharged: 0.1 + ABOVE },
      { symptom: 'slow-crank' },
      FLAT,
      ['charge-first', 'discharged-not-bad', 'joint', 'unsure'],
    ],
    [
      'flat, and a part that looks like it sure',
      { 'joint-positive': 0.9, discharged: 0.1 },
      { symptom: 'slow-crank' },
      FLAT,
      ['not-the-battery', 'fault-elsewhere', 'joint', 'sure'],
    ],
    [
      'flat, and the part that emptied it likelier',
      { charging: 0.7, discharged: 0.3 },
      { symptom: 'slow-crank' },
      FLAT,
      ['not-the-battery', 'fault-elsewhere', 'charging', 'fairly-sure'],
    ],
    [
      'flat again, and likelier bad',
      { worn: 0.9, discharged: 0.1 },
      { symptom: 'silence' },
      FLAT,
      ['replace-soon', 'flat-again', null, 'sure'],
      { earlierFlatCalls: 1 },
    ],
    [
      'flat again, not quite likely bad',
      { worn: 0.9 - ABOVE, discharged: 0.1 + ABOVE },
      { symptom: 'silence' },
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
      { earlierFlatCalls: 1 },
    ],
    [
      'flat again, and a test showed it sound',
      { worn: 0.95, discharged: 0.05 },
      sound,
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
      { earlierFlatCalls: 1 },
    ],
    [
      'flat for the first time',
      { worn: 0.95, discharged: 0.05 },
      { symptom: 'silence' },
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
    ],
    [
      'died in service',
      { worn: 0.9, discharged: 0.1 },
      { symptom: 'no-doors' },
      FLAT,
      ['replace-soon', 'died-in-service', null, 'sure'],
      { wakes: true, diedInService: true },
    ],
    [
      'died in service, of what was left on',
      { 'worn+left-on': 0.9, discharged: 0.1 },
      { symptom: 'no-doors' },
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
      { wakes: true, diedInService: true },
    ],
    [
      'found dead where it does not wake',
      { worn: 0.9, discharged: 0.1 },
      { symptom: 'no-doors' },
      FLAT,
      ['charge-first', 'likely-but-unproved', null, 'sure'],
      { diedInService: true },
    ],
    [
      'as likely bad as flat',
      { worn: 0.5, discharged: 0.5 },
      { symptom: 'silence' },
      FLAT,
      ['charge-first', 'discharged-not-bad', null, 'unsure'],
    ],
  ];
  for (const [name, shares, found, restVolts, expected, more] of ROWS) {
    it(name, () => {
      const { verdict, ground, suspect, certainty } = ruled(shares, found, restVolts, more);
      const told: (string | null | undefined)[] = [verdict, ground, suspect, certainty];
      expect(told).toEqual([...expected]);
    });
  }

  it('is as sure as its causes hold together, against them where it keeps', () => {
    expect(ruled({ none: 0.7, worn: 0.1, starter: 0.2 }, sound, CHARGED).share).toBeCloseTo(0.9, 12);
    expect(ruled({ starter: 0.8, discharged: 0.2 }, sound, CHARGED).share).toBeCloseTo(0.8, 12);
    expect(ruled({ worn: 1 }, tested, -11.9).share).toBe(1);
    const certainty = (share: number): string =>
      ruled({ starter: share, discharged: 1 - share }, { symptom: 'silence' }, CHARGED).certainty;
    expect([0.9, 0.9 - ABOVE, 0.7, 0.7 - ABOVE].map(certainty)).toEqual([
      'sure',
      'fairly-sure',
      'fairly-sure',
      'unsure',
    ]);
  });

  it('dates what follows by the house rules', () => {
    const { recheckDays, replaceSoonDays, inspectDays, chargeMonthlyDays } = DEFAULT_RULES;
    const after = (...of: Parameters<typeof ruled>): [string, number][] =>
      ruled(...of).followUps.map(({ kind, days }) => [kind, days]);
    const short = { 'ask-use': 'short-trips' } as const;
    expect(after({ none: 1 }, sound, CHARGED)).toEqual([['inspect', inspectDays]]);
    expect(after({ none: 1 }, { ...sound, ...short }, CHARGED)).toEqual([
      ['charge-monthly', chargeMonthlyDays],
      ['inspect', inspectDays],
    ]);
    expect(after({ discharged: 1 }, { ...short, symptom: 'silence' }, FLAT)).toEqual([
      ['charge', 0],
      ['recheck', recheckDays],
      ['charge-monthly', chargeMonthlyDays],
    ]);
    const stood = { 'ask-use': 'stood-weeks' } as const;
    expect(after({ none: 1 }, { ...sound, ...stood }, CHARGED)).toEqual([
      ['maintainer', 0],
      ['inspect', inspectDays],
    ]);
    expect(after({ discharged: 1 }, stood, FLAT)).toEqual([
      ['charge', 0],
      ['recheck', recheckDays],
      ['maintainer', 0],
    ]);
    expect(after({ discharged: 1 }, { 'ask-use': 'regular' }, FLAT)).toEqual([
      ['charge', 0],
      ['recheck', recheckDays],
    ]);
    expect(after({ worn: 0.85, discharged: 0.15 }, worn, CHARGED)).toEqual([['replace', replaceSoonDays]]);
    expect(after({ 'worn+drain': 1 }, tested, CHARGED)).toEqual([
      ['replace', 0],
      ['workshop', 0],
    ]);
    expect(after({ starter: 0.3, cable: 0.3, none: 0.4 }, sound, CHARGED)).toEqual([
      ['recheck', recheckDays],
    ]);
    expect(after({ starter: 1 }, { symptom: 'one-click' }, null)).toEqual([['workshop', 0]]);
    expect(after({ starter: 1 }, { symptom: 'one-click' }, FLAT)).toEqual([
      ['workshop', 0],
      ['recheck', recheckDays],
    ]);
    expect(after({ worn: 1 }, tested, CHARGED, { stops: ['case-damaged'] })).toEqual([['workshop', 0]]);
  });

  it('keeps a ledger of what moved it, strongest first, and leaves out what did not', () => {
    const chances: Chances = {
      'ask-use': [
        [0.8, 0.1, 0.1],
        [0.2, 0.4, 0.4],
      ],
      'look-date': [
        [0.1, 0.1, 0.8],
        [0.4, 0.4, 0.2],
      ],
      'look-belt': [
        [0.5, 0.5],
        [0.51, 0.49],
      ],
    };
    const found = {
      symptom: 'silence',
      'ask-use': 'short-trips',
      'look-date': 'over-6',
      'look-belt': 'bad',
    } as const;
    const { ledger } = ruled({ starter: 0.6, discharged: 0.4 }, found, CHARGED, {}, { chances });
    // Odds of the starter by Bayes: 0.1 / 0.4 is two halvings, 0.8 / 0.2 two doublings, 0.5 / 0.51 next to nothing.
    expect(ledger!.map(({ check, bits }) => [check, Number(bits.toFixed(6))])).toEqual([
      ['ask-use', -2],
      ['look-date', 2],
    ]);
    expect(ruled({ worn: 1 }, tested, -11.9).ledger!.length).toBeLessThanOrEqual(1);
    expect(ruled({ worn: 1 }, tested, CHARGED, { stops: ['case-damaged'] }).ledger).toEqual([]);
  });
});

describe('the check that decides', () => {
  const shares = { starter: 0.6, discharged: 0.4 };
  const halves = (of: number, other: number): readonly (readonly number[])[] => [
    [1 - of, of],
    [other, 1 - other],
  ];

  it('is the one whose findings overturn the verdict most often', () => {
    const chances: Chances = { 'look-belt': halves(0.9, 0.9), 'look-switches': halves(0.05, 0.9) };
    // look-switches: 0.6 x 0.95 + 0.4 x 0.9 keeps; turned by its other finding only.
    const { deciding } = ruled(shares, { symptom: 'silence' }, FLAT, {}, { chances });
    expect(deciding!.check).toBe('look-belt');
    expect(deciding!.chance).toBeGreaterThan(0.3);
    expect(deciding!.battery).toBeUndefined();
  });

  it('is none where nothing overturns it, where it was done, and under a stop', () => {
    const chances: Chances = { 'look-belt': halves(0.9, 0.9) };
    expect(ruled(shares, { symptom: 'silence' }, FLAT).deciding).toBeNull();
    expect(ruled(shares, { 'look-belt': 'bad' }, FLAT, {}, { chances }).deciding).toBeNull();
    expect(
      ruled(shares, { symptom: 'silence' }, FLAT, { stops: ['case-damaged'] }, { chances }).deciding,
    ).toBeNull();
  });

  it('is none when it would overturn it in under one of twenty', () => {
    const rarely: Chances = {
      'look-belt': [
        [0.04, 0.96],
        [0.0001, 0.9999],
      ],
    };
    expect(
      ruled({ discharged: 0.9, starter: 0.1 }, { symptom: 'silence' }, FLAT, {}, { chances: rarely })
        .deciding,
    ).toBeNull();
  });

  it('is counted where it leads from one part to another', () => {
    const chances: Chances = {
      'look-belt': [
        [0.1, 0.9],
        [0.9, 0.1],
      ],
    };
    const { deciding } = ruled(
      { starter: 0.6, cable: 0.4 },
      { symptom: 'silence' },
      CHARGED,
      {},
      { chances },
    );
    // A bad belt: 0.06 to 0.36, and the cable leads. Its chance is 0.6 x 0.1 + 0.4 x 0.9.
    expect(deciding!.check).toBe('look-belt');
    expect(deciding!.chance).toBeCloseTo(0.42, 9);
  });
});

describe('proof against a battery', () => {
  const LIMIT_10C = 9.4;
  const collapse = DEFAULT_RULES.crankMinimumBadVolts - LIMIT_10C;
  const proof = (found: Findings, restVolts: number | null = CHARGED) =>
    proofOf(evidenceOf(found), factsOf([restVolts]), DEFAULT_RULES);
  const ROWS: [string, Findings, number | null, 'spent' | 'worn' | null][] = [
    ['a cell that stays low, at any charge', { 'specific-gravity': 'one-cell-low' }, FLAT, 'spent'],
    ['cells alike', { 'specific-gravity': 'even-low' }, FLAT, null],
    ['full at once from flat', { acceptance: 'full-at-once' }, FLAT, 'spent'],
    ['full at once when charged', { acceptance: 'full-at-once' }, CHARGED, null],
    ['full at once, never read', { acceptance: 'full-at-once' }, null, null],
    ['takes charge from flat', { acceptance: 'takes-charge' }, FLAT, null],
    ['tester under three fifths', { conductance: 0.59 }, CHARGED, 'spent'],
    ['tester at three fifths', { conductance: 0.6 }, CHARGED, 'worn'],
    ['tester under four fifths', { conductance: 0.79 }, CHARGED, 'worn'],
    ['tester at four fifths', { conductance: 0.8 }, CHARGED, null],
    ['tester under three fifths when flat', { conductance: 0.3 }, FLAT, null],
    ['tester, rest never read', { conductance: 0.3 }, null, null],
    ['crank under what is always bad', { crank: collapse - 0.01 }, CHARGED, 'spent'],
    ['crank at what is always bad', { crank: collapse }, CHARGED, 'worn'],
    ['crank a little under its limit', { crank: -0.01 }, CHARGED, 'worn'],
    ['crank at its limit', { crank: 0 }, CHARGED, null],
    ['charged volts gone under the dash lamps', { 'key-on': 3.01 }, CHARGED, 'spent'],
    ['three volts lost under the dash lamps', { 'key-on': 3 }, CHARGED, null],
    ['load under its limit', { 'load-test': -0.01 }, CHARGED, 'worn'],
    ['load at its limit', { 'load-test': 0 }, CHARGED, null],
    ['tester a little low, crank well up', { conductance: 0.75, crank: 1 }, CHARGED, null],
    ['tester a little low, crank just up', { conductance: 0.75, crank: 0.99 }, CHARGED, 'worn'],
    ['tester a little low, load well up', { conductance: 0.75, 'load-test': 1 }, CHARGED, null],
    ['tester spent, crank well up', { conductance: 0.5, crank: 1.5 }, CHARGED, 'spent'],
    ['only low rest volts', { rest: 10.5 }, 10.5, null],
  ];
  for (const [name, found, restVolts, expected] of ROWS)
    it(`${name}: ${expected ?? 'none'}`, () => expect(proof(found, restVolts)).toBe(expected));

  it('of soundness: a tester at any charge, a load or a crank from three quarters on', () => {
    const isSound = (found: Findings, restVolts: number | null): boolean =>
      showsSound(evidenceOf(found), factsOf([restVolts]), DEFAULT_RULES);
    expect(isSound({ conductance: 0.8 }, FLAT)).toBeTrue();
    expect(isSound({ conductance: 0.79 }, CHARGED)).toBeFalse();
    expect(isSound({ 'load-test': 0 }, CHARGED)).toBeTrue();
    expect(isSound({ 'load-test': -0.01 }, CHARGED)).toBeFalse();
    expect(isSound({ crank: 0 }, CHARGED)).toBeTrue();
    expect(isSound({ crank: 0 }, FLAT)).toBeFalse();
    expect(isSound({ crank: 0 }, null)).toBeFalse();
    expect(isSound({ 'key-on': 0.9 }, CHARGED)).toBeFalse();
    expect(isSound({}, CHARGED)).toBeFalse();
  });
});
