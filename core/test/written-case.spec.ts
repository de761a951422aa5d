import fc from 'fast-check';
import { ALONG_CAUSES, type Cause } from '../src/diagnosis/index.js';
import { MACHINE_CLASSES } from '../src/machine/index.js';
import {
  act,
  alongFor,
  causesOf,
  codeOf,
  codeOfWritten,
  debriefOf,
  faultsOfWritten,
  measureOf,
  mindFor,
  nameOfWritten,
  optionsOf,
  PRACTICE_KIT,
  profileOf,
  questionsFor,
  readCaseCode,
  startCase,
  toolRun,
  type WrittenCase,
} from '../src/practice/index.js';

const WRITTEN: WrittenCase = {
  title: 'The kind neighbour',
  machineClass: 'car',
  tempC: -7,
  cause: 'joint-negative',
  along: 'drain',
  symptom: 'silence',
  says: 'It was fine. My neighbour’s “help” (last night, 100 %) did nothing; öl? ~maybe.',
  answers: { 'ask-left-on': 'yes', 'ask-use': 'regular' },
  kit: ['heavy-leads', 'donor', 'meter'],
  number: 3,
};
const faultsOf = (change: object) =>
  faultsOfWritten({ ...WRITTEN, ...change }).map(({ path, fault }) => `${path} ${fault}`);

describe('a written case', () => {
  it('is all in its code, in signs that an address takes as they are', () => {
    const code = codeOfWritten(WRITTEN);
    expect(code).toMatch(/^[\w.~!*'()-]+$/);
    expect(readCaseCode(code)).toEqual({ rung: null, made: WRITTEN, written: WRITTEN, number: 3 });
    const { practice } = startCase(code);
    for (const told of ['joint', 'drain', 'neighbour']) expect(code).not.toContain(told);
    expect(practice.code).toBe(nameOfWritten(WRITTEN));
    expect([practice.hidden.cause, practice.tempC, practice.said]).toEqual(['joint-negative', -7, 'silence']);
    expect(practice.told?.says).toBe(WRITTEN.says);
    expect(practice.tools).toEqual(['meter', 'source']);
    // Kit that is not in the van cannot be fetched.
    expect(practice.kit.map(({ id }) => id).sort()).toEqual(['donor', 'heavy-leads', 'meter']);
    expect(optionsOf(startCase(code)).length).toBeGreaterThan(0);
    expect(optionsOf(startCase(code)).every(({ sourceKind }) => sourceKind === 'donor')).toBeTrue();
    const next = codeOf(readCaseCode(code)!, 4);
    expect(startCase(next).practice.told).toEqual(practice.told);
    expect(startCase(next).hidden).not.toEqual(startCase(code).hidden);
  });

  it('has what came along and nothing else', () => {
    const holdsOf = (along: WrittenCase['along'], number: number): readonly Cause[] =>
      startCase(codeOfWritten({ ...WRITTEN, cause: 'fuel', along, number })).hidden.holds;
    for (let number = 1; number <= 40; number++) {
      const alone = holdsOf(null, number);
      expect(alone).toContain('fuel');
      expect(ALONG_CAUSES.filter((c) => alone.includes(c))).toEqual([]);
      expect(ALONG_CAUSES.filter((c) => holdsOf('left-on', number).includes(c))).toEqual(['left-on']);
    }
  });

  it('lets the driver say what is not so, and answers the rest as it is', () => {
    const start = startCase(codeOfWritten(WRITTEN));
    expect(start.practice.hidden.leftOn).toBeFalse();
    const told = act(start, { kind: 'check', check: 'ask-left-on' });
    expect(told.log.at(-1)?.found).toBe('yes');
    expect(told.evidence.at(-1)).toEqual({ check: 'ask-left-on', found: 'yes' });
    const honest = startCase(codeOfWritten({ ...WRITTEN, answers: {} }));
    expect(act(honest, { kind: 'check', check: 'ask-left-on' }).log.at(-1)?.found).toBe('no');
  });

  it('is played by the tool to its end, and judged', () => {
    const run = toolRun(codeOfWritten({ ...WRITTEN, answers: {}, kit: PRACTICE_KIT.map(({ id }) => id) }));
    expect(run.verdict).not.toBeNull();
    expect(debriefOf(run, measureOf(run), mindFor(run)).truth.cause).toBe('joint-negative');
    expect(run.log.flatMap(({ hazards }) => hazards).filter((h) => h.severity === 'severe')).toEqual([]);
  });

  it('names every fault by its place', () => {
    expect(faultsOf({})).toEqual([]);
    expect(faultsOf({ title: ' ' })).toEqual(['title no-text']);
    expect(faultsOf({ title: 'x'.repeat(61), says: 'x'.repeat(281) })).toEqual([
      'title text-too-long',
      'says text-too-long',
    ]);
    expect(faultsOf({ says: 'half \ud83d', title: '🔋' })).toEqual(['says text-broken']);
    expect(faultsOf({ tempC: -31, number: 1.5 })).toEqual([
      'tempC cold-out-of-range',
      'number number-out-of-range',
    ]);
    expect(faultsOf({ tempC: 4.5 })).toEqual(['tempC cold-out-of-range']);
    expect(faultsOf({ tempC: NaN, number: NaN })).toEqual([
      'tempC cold-out-of-range',
      'number number-out-of-range',
    ]);
    expect(faultsOf({ cause: 'converter' })).toEqual(['cause fault-not-of-machine']);
    expect(faultsOf({ along: 'joint-positive' })).toEqual(['along along-not-of-machine']);
    expect(faultsOf({ machineClass: 'ev', cause: 'converter', along: 'charging', answers: {} })).toEqual([
      'along along-not-of-machine',
    ]);
    expect(faultsOf({ machineClass: 'sledge' })).toEqual(['machineClass unknown-machine']);
    expect(faultsOf({ symptom: 'sulks' })).toEqual(['symptom unknown-symptom']);
    expect(faultsOf({ answers: { 'ask-warned': 'yes' } })).toEqual(['answers.ask-warned unknown-question']);
    expect(faultsOf({ answers: { rest: '12.6' } })).toEqual(['answers.rest unknown-question']);
    expect(faultsOf({ answers: { 'ask-use': 'daily' } })).toEqual(['answers.ask-use unknown-answer']);
    expect(faultsOf({ kit: ['donor', 'winch', 'donor'] })).toEqual([
      'kit.1 unknown-kit',
      'kit.2 unknown-kit',
    ]);
  });

  it('is read from its code whatever was written, and from nothing that was cut or changed into no case', () => {
    const written = fc
      .constantFrom(...MACHINE_CLASSES)
      .chain((machineClass) =>
        fc.record({
          machineClass: fc.constant(machineClass),
          cause: fc.constantFrom(...causesOf(machineClass)),
          title: fc.string({ minLength: 1, maxLength: 20, unit: 'grapheme' }).filter((t) => t.trim() !== ''),
          says: fc.string({ maxLength: 60 }),
          tempC: fc.integer({ min: -30, max: 40 }),
          number: fc.integer({ min: 1, max: 999_999 }),
          kit: fc.subarray(PRACTICE_KIT.map(({ id }) => id)),
          pick: fc.nat(20),
        }),
      )
      .map(({ pick, ...rest }): WrittenCase => {
        const alongs = [null, ...alongFor(rest.machineClass, rest.cause)];
        const questions = questionsFor(profileOf(rest.machineClass, rest.tempC));
        const { id, outcomes } = questions[pick % questions.length]!;
        return {
          ...rest,
          along: alongs[pick % alongs.length]!,
          symptom: 'one-click',
          answers: { [id]: outcomes[pick % outcomes.length]! },
        };
      })
      .filter((w) => w.title.length <= 60);
    fc.assert(
      fc.property(written, fc.nat(400), (w, cut) => {
        const code = codeOfWritten(w);
        expect(readCaseCode(code)?.made).toEqual(w);
        expect(readCaseCode(code.slice(0, Math.min(cut, code.length - 1)))).toBeNull();
      }),
      { numRuns: 200 },
    );
    for (const change of [{ title: 5 }, { kit: null }, { tempC: '4' }, { number: '4' }, { answers: null }])
      expect(readCaseCode(codeOfWritten({ ...WRITTEN, ...change } as unknown as WrittenCase)))
        .withContext(JSON.stringify(change))
        .toBeNull();
    expect(readCaseCode('written~.ZZ')).toBeNull();
    expect(readCaseCode('written~null')).toBeNull();
  });
});
