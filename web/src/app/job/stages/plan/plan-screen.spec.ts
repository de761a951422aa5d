import { provideZonelessChangeDetection, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { drawSound, type Odds } from '@voltrek/core/belief';
import { seededRandom } from '@voltrek/core/quantities';
import { planInputs, traceOf, waitCurve } from '@voltrek/core/plan';
import { provideState, provideStore } from '@ngrx/store';
import { PLAN_CASE, rankedOptions } from '../../../../testing/fixtures';
import { crewCopy } from '../../../shared/data/crew';
import { sessionFeature } from '../../../shared/data/session';
import { OptionList } from './option-list';
import type { OptionRow } from './option-rows';
import { PlanCompare } from './plan-compare';
import { PlanDetailView } from './plan-detail';
import type { PlanDetail } from './plan-store';

const RANKED = rankedOptions().filter((r) => !r.unfit);
const row = (at: number): OptionRow => ({
  ranked: RANKED[at]!,
  name: `source ${at}`,
  outlook: 'will crank',
  tone: 'good',
  bar: 80,
  mark: 33,
  figure: '90 in 100',
});
const odds = (start: number): Odds => ({
  start,
  low: start - 0.014,
  high: start + 0.013,
  samples: 4000,
  meanRpm: 200,
  meanStarterVolts: 10,
  matters: {
    charge: 0.1,
    ageing: 0.6,
    clamps: 0.05,
    drag: 0.2,
    temperature: 0.05,
    starter: 0,
    breakaway: 0,
    firing: 0,
    source: 0,
    brushes: 0,
  },
  kinds: [],
});
async function show<C>(
  component: Type<C>,
  inputs: Readonly<Record<string, unknown>>,
): Promise<{ fixture: ComponentFixture<C>; root: HTMLElement; tap: (name: string) => Promise<void> }> {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideStore(),
      provideState(sessionFeature),
      provideState(crewCopy),
    ],
  });
  const fixture = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const root = fixture.nativeElement as HTMLElement;
  const tap = async (name: string): Promise<void> => {
    [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
    await fixture.whenStable();
  };
  return { fixture, root, tap };
}

describe('the list of options', () => {
  it('marks the chosen one for a screen reader, and tells which was picked', async () => {
    const { fixture, root } = await show(OptionList, {
      fitting: [row(0), row(1)],
      unfit: [],
      chosenId: RANKED[1]!.option.id,
    });
    const radios = [...root.querySelectorAll<HTMLButtonElement>('[role=radio]')];
    expect(radios.map((r) => r.getAttribute('aria-checked'))).toEqual(['false', 'true']);
    let picked = '';
    fixture.componentInstance.chosen.subscribe((id) => (picked = id));
    radios[0]!.click();
    expect(picked).toBe(RANKED[0]!.option.id);
  });

  it('says what to do when nothing fits, and why each does not', async () => {
    const { root } = await show(OptionList, {
      fitting: [],
      unfit: [{ ...row(0), outlook: 'gives 24 V, this is 12 V' }],
      chosenId: null,
    });
    expect(root.querySelector('.problem')!.textContent).toContain('Call for a matching source');
    expect(root.querySelector('.unfit')!.textContent).toContain('gives 24 V, this is 12 V');
  });
});

describe('two options side by side', () => {
  const inputs = { left: row(0), right: row(1), others: [row(1)] };
  const cells = (root: HTMLElement, name: string): string[] =>
    [...root.querySelectorAll('tbody tr')]
      .filter((tr) => tr.querySelector('th')!.textContent.includes(name))
      .flatMap((tr) => [...tr.querySelectorAll('td')].map((td) => td.textContent));

  it('shows the same figure of both, from the same ranking', async () => {
    const [a, b] = [RANKED[0]!, RANKED[1]!];
    const { root } = await show(PlanCompare, {
      ...inputs,
      odds: { [a.option.id]: odds(0.92), [b.option.id]: odds(0.41) },
    });
    expect(cells(root, 'odds')).toEqual(['92 in 100', '41 in 100']);
    const volts = [a, b].map((r) => `${r.crank!.starterVolts.toFixed(1)} V`);
    expect(cells(root, 'at the starter')).toEqual(volts);
  });

  it('leaves a dash where the odds are not drawn yet, and the line out where none are', async () => {
    const { fixture, root } = await show(PlanCompare, {
      ...inputs,
      odds: { [RANKED[0]!.option.id]: odds(0.92) },
    });
    expect(cells(root, 'odds')).toEqual(['92 in 100', '-']);
    fixture.componentRef.setInput('odds', {});
    await fixture.whenStable();
    expect(cells(root, 'odds')).toEqual([]);
  });
});

describe('one option in depth', () => {
  const detail: PlanDetail = {
    of: PLAN_CASE,
    trace: traceOf(PLAN_CASE, 3),
    odds: odds(0.62),
    curve: waitCurve(PLAN_CASE, 6, drawSound(200, seededRandom(1)))!,
    helps: [{ help: 'heavier-leads', odds: 0.88 }] as never,
    cells: null,
  };
  const inputs = {
    ranked: RANKED[0]!,
    detail,
    wake: null,
    listOdds: null,
    isStale: false,
    progress: null,
    inputs: planInputs(PLAN_CASE, { soc: 'typed', tempC: 'scene' }),
    changes: {},
  };

  it('says the odds with their band, and which unknown the doubt comes from', async () => {
    const { root } = await show(PlanDetailView, inputs);
    const said = root.querySelector('.odds')!.textContent.replace(/\s+/g, ' ');
    expect(said).toContain('62 in 100, 60 to 64 by 4000 machines');
    expect(said).toMatch(/Most of the doubt is .+age/);
  });

  it('names no doubt where there is next to none', async () => {
    const { root } = await show(PlanDetailView, { ...inputs, detail: { ...detail, odds: odds(0.995) } });
    expect(root.querySelector('.odds')!.textContent).not.toContain('Most of the doubt');
  });

  it('tells the crank in words for whoever does not see the chart', async () => {
    const { root } = await show(PlanDetailView, inputs);
    const label = root.querySelector('[role=img]')!.getAttribute('aria-label')!;
    expect(label).toContain(`dips to ${detail.trace!.dipVolts.toFixed(1)} V`);
    expect(label).toContain(`needs ${detail.trace!.neededRpm.toFixed(0)}`);
  });

  it('has a plain sentence for the wait, and none for leads that a source does not have', async () => {
    const { root, tap } = await show(PlanDetailView, inputs);
    await tap('Wait');
    expect(root.querySelector('.say')!.textContent.trim().length).toBeGreaterThan(10);
    await tap('Leads');
    expect(root.textContent).toContain('This source has no leads to choose');
  });

  it('opens the machines behind the odds: their fault, their weight, and how many of them start', async () => {
    const kinds = [
      { cause: 'worn', share: 0.6, start: 0.93, soc: 0.12, strength: 0.55 },
      { cause: 'starter', share: 0.4, start: 0.01, soc: 0.8, strength: 0.9 },
    ] as const;
    const { root, tap } = await show(PlanDetailView, {
      ...inputs,
      detail: { ...detail, odds: { ...odds(0.56), kinds } },
    });
    await tap('Odds');
    const rows = [...root.querySelectorAll('tbody tr')].map((row) =>
      [...row.children].map((cell) => cell.textContent.trim()),
    );
    expect(rows).toEqual([
      ['worn battery', '60 %', '12 %', '55 %', '93 %'],
      ['starter or solenoid', '40 %', '80 %', '90 %', '1 %'],
    ]);
  });

  it('says when its figures are from before a change, and lets them be computed again', async () => {
    const { fixture, root, tap } = await show(PlanDetailView, { ...inputs, isStale: true });
    expect(root.querySelector('.stale')!.textContent).toContain('From before the change');
    let asked = 0;
    fixture.componentInstance.again.subscribe(() => asked++);
    await tap('Compute again');
    expect(asked).toBe(1);
  });

  it('shows how far the computing is, and stops it', async () => {
    const { fixture, root, tap } = await show(PlanDetailView, { ...inputs, progress: 0.37 });
    expect(root.querySelector('.progress-line')!.textContent).toContain('37 %');
    let stopped = 0;
    fixture.componentInstance.cancelled.subscribe(() => stopped++);
    await tap('Stop');
    expect(stopped).toBe(1);
  });
});
