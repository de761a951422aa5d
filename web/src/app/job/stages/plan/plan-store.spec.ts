import { TestBed } from '@angular/core/testing';
import type { WakeCase } from '@voltrek/core/crank';
import type { Findings, Odds } from '@voltrek/core/belief';
import type { PlanCase } from '@voltrek/core/plan';
import type { PlanRun, PlanRunner } from '../../../workers/plan-runner';
import { DETAIL_RUNNER, ODDS_RUNNER, PlanStore } from './plan-store';

const odds = (start: number): Odds => ({
  start,
  low: start,
  high: start,
  samples: 10,
  meanRpm: 0,
  meanStarterVolts: 0,
  matters: {
    charge: 0,
    ageing: 0,
    clamps: 0,
    drag: 0,
    temperature: 0,
    starter: 0,
    breakaway: 0,
    firing: 0,
    source: 0,
    brushes: 0,
  },
  kinds: [],
});

/** A runner whose worker answers with what the test says, or dies. */
class FakeRunner {
  begun = 0;
  private round = 0;
  constructor(private readonly answers: (() => Promise<unknown>)[]) {}
  begin(): PlanRun {
    this.begun++;
    const round = ++this.round;
    return {
      isCurrent: () => round === this.round,
      ask: <T>() => this.answers.shift()!() as Promise<T>,
    };
  }
  stop(): void {
    this.round++;
  }
}

describe('PlanStore', () => {
  const plans = new Map([
    ['a', {} as PlanCase],
    ['b', {} as PlanCase],
  ]);
  const died = (): Promise<never> => Promise.reject(new Error('worker died'));

  function storeWith(answers: (() => Promise<unknown>)[], ofDetail: (() => Promise<unknown>)[] = []) {
    const runner = new FakeRunner(answers);
    TestBed.configureTestingModule({
      providers: [
        { provide: ODDS_RUNNER, useValue: runner as unknown as PlanRunner },
        { provide: DETAIL_RUNNER, useValue: new FakeRunner(ofDetail) as unknown as PlanRunner },
        PlanStore,
      ],
    });
    return { store: TestBed.inject(PlanStore), runner };
  }

  it('gathers the odds of every option', async () => {
    const { store } = storeWith([() => Promise.resolve(odds(0.9)), () => Promise.resolve(odds(0.4))]);
    await store.askOdds(plans, {} as Findings);
    expect(Object.entries(store.byOption()).map(([id, o]) => [id, o.start])).toEqual([
      ['a', 0.9],
      ['b', 0.4],
    ]);
    expect(store.oddsProgress()).toBeNull();
  });

  it('starts a dead worker again, and says so', async () => {
    const { store, runner } = storeWith([
      died,
      () => Promise.resolve(odds(0.9)),
      () => Promise.resolve(odds(0.4)),
    ]);
    await store.askOdds(plans, {} as Findings);
    expect(runner.begun).toBe(2);
    expect(store.restarts()).toBe(1);
    expect(store.problem()).toBeNull();
    expect(store.byOption().b!.start).toBe(0.4);
  });

  it('gives up after the second death, keeps nothing half said, and can be asked again', async () => {
    const { store } = storeWith([
      died,
      died,
      () => Promise.resolve(odds(0.5)),
      () => Promise.resolve(odds(0.5)),
    ]);
    await store.askOdds(plans, {} as Findings);
    expect(store.problem()).toContain('could not be computed');
    await store.askOdds(plans, {} as Findings);
    expect(store.problem()).toBeNull();
    expect(store.byOption().a!.start).toBe(0.5);
  });

  it('drops what comes back after it was cancelled', async () => {
    let answer: (o: Odds) => void = () => undefined;
    const { store } = storeWith([() => new Promise<Odds>((done) => (answer = done))]);
    const asked = store.askOdds(plans, {} as Findings);
    store.cancel();
    answer(odds(0.9));
    await asked;
    expect(store.byOption()).toEqual({});
    expect(store.oddsProgress()).toBeNull();
  });

  it('lets no more compute at once than leaves the screen a core', async () => {
    let underWay = 0;
    let most = 0;
    const answer = async (): Promise<Odds> => {
      most = Math.max(most, ++underWay);
      await new Promise((resolve) => setTimeout(resolve));
      underWay--;
      return odds(0.7);
    };
    const { store } = storeWith(
      Array.from({ length: plans.size }, () => answer),
      [answer, answer],
    );
    await Promise.all([store.askOdds(plans, {} as Findings), store.askWake({} as WakeCase, {} as WakeCase)]);
    expect(most).toBe(Math.min(2, Math.max(1, navigator.hardwareConcurrency - 1)));
  });
});
