import {
  EXAM_NUMBER_MOST,
  examCases,
  type ExamRun,
  markExam,
  optionsOf,
  type PracticeAction,
  measureOf,
  readCaseCode,
  replay,
  startCase,
  toolRun,
  type World,
} from '../src/practice/index.js';
import { crowdForTests } from './proof-share.js';

const mindOf = ({ practice: { profile } }: World) => crowdForTests(profile);
/** The actions of the tool's own run of each case. */
function byTheTool(number: number): ExamRun[] {
  return examCases(number).map((code) => {
    const world = toolRun(code, mindOf(startCase(code)));
    return { code, actions: world.log.map(({ action }) => action) };
  });
}
const RUNGS_OF = (number: number) => examCases(number).map((code) => readCaseCode(code)!.rung!);

describe('an exam', () => {
  it('has five cases of five rungs, the two that hurt among them, the same each time and others for another number', () => {
    const seen = new Set<string>();
    for (let number = 1; number <= EXAM_NUMBER_MOST; number += 97) {
      const codes = examCases(number);
      expect(examCases(number)).toEqual(codes);
      expect(new Set(RUNGS_OF(number)).size).toBe(5);
      expect(RUNGS_OF(number)).toContain('order');
      expect(RUNGS_OF(number)).toContain('stop');
      for (const code of codes) seen.add(code);
    }
    expect(seen.size).toBeGreaterThan(500);
    // No place tells what its case is about.
    for (const place of [0, 1, 2, 3, 4])
      expect(new Set(Array.from({ length: 60 }, (_, i) => RUNGS_OF(i + 1)[place])).size).toBeGreaterThan(5);
    // Every rung is asked by some exam.
    const asked = new Set(Array.from({ length: 60 }, (_, i) => RUNGS_OF(i + 1)).flat());
    expect(asked.size).toBe(11);
  });

  it('is marked by what was done: right, not ended, wrong, and dangerous, each by itself @long', () => {
    const runs = byTheTool(3);
    const whole = markExam(3, runs, mindOf);
    expect(whole.cases.every(({ passed, severeRisks }) => passed && severeRisks === 0)).toBeTrue();
    expect(whole.passed).toBeTrue();
    const changed = (changes: Readonly<Record<number, readonly PracticeAction[]>>) =>
      markExam(
        3,
        runs.map((run, i) => (changes[i] ? { ...run, actions: changes[i] } : run)),
        mindOf,
      );
    // One may be left; two may not.
    const one = changed({ 1: [] });
    expect(one.cases[1]!.failings).toContain('not-ended');
    expect([one.passed, changed({ 1: [], 2: [] }).passed]).toEqual([true, false]);
    // A wrong verdict is one case.
    const verdict: PracticeAction = { kind: 'verdict', verdict: 'replace-now', suspect: null };
    const wrong = changed({ 0: [...runs[0]!.actions.slice(0, -1), verdict] });
    expect(wrong.cases[0]!.passed).toBeFalse();
    expect(wrong.cases[0]!.verdict).toBe('replace-now');
    // To say what it is and drive off helps nobody: where the tool had it run, it must run.
    const started = runs.findIndex(({ code, actions }) => measureOf(replay(code, actions)).started);
    const idle = changed({
      [started]: runs[started]!.actions.filter(({ kind }) => kind === 'check' || kind === 'verdict'),
    });
    expect(idle.cases[started]!.failings).toContain('not-started');
    // A run that could have hurt somebody once has not passed, however right the rest, and taken back or not.
    const slip = (code: string): readonly PracticeAction[] => {
      const start = startCase(code);
      const pointId = start.practice.machine.points.find(({ kind }) => kind === 'battery-positive')!.id;
      return [
        { kind: 'fetch', optionId: optionsOf(start).find((o) => o.sourceKind === 'donor')!.id },
        { kind: 'hands', action: { kind: 'bridge', pointId } },
        { kind: 'back' },
        { kind: 'back' },
      ];
    };
    // A spanner from plus to the body: what a battery that still has charge does to it.
    const slips = runs.map(({ code, actions }, i) => changed({ [i]: [...slip(code), ...actions] }));
    const hurt = slips.filter(({ cases }, i) => cases[i]!.severeRisks > 0);
    expect(hurt.length).toBeGreaterThan(0);
    for (const { cases, passed } of hurt) {
      expect(cases.filter((c) => !c.passed).length).toBe(1);
      expect(passed).toBeFalse();
    }
  }, 60_000);

  it('is marked of its own cases only, in their order, and gives no hints', () => {
    const runs = examCases(4).map((code): ExamRun => ({ code, actions: [] }));
    expect(() => markExam(5, runs)).toThrowError(RangeError);
    expect(() => markExam(4, [...runs].reverse())).toThrowError(RangeError);
    expect(() => markExam(4, runs.slice(1))).toThrowError(RangeError);
    const hinted = runs.map((run) => ({ ...run, actions: [{ kind: 'hint', level: 'nudge' } as const] }));
    expect(() => markExam(4, hinted)).toThrowError(/no hints/);
    // A reading of a bench is the device's word.
    const shown = { kind: 'probe', red: 'battery-plus', black: 'battery-minus', shown: 12.6 } as const;
    const onBench = runs.map((run) => ({ ...run, actions: [shown] }));
    expect(() => markExam(4, onBench)).toThrowError(/its own instruments/);
    expect(markExam(4, runs, mindOf).passed).toBeFalse();
  });
});
