import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { act, hazardsOf, type HookupState, type HookupStep } from '@voltrek/core/hookup';
import { foldJob, type JobEvent } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { event, opened, planned } from '../../../testing/fixtures';
import { type JobHarness, jobHarness } from '../../../testing/job-harness';
import { selectClearingRun, selectHookupRun, selectRescue, type Work } from '../../shared/job/job-selectors';
import { Cues } from '../../shared/ui/cues';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import { judgedStep } from '../../shared/job/judged-step';
import { Cleardown } from './cleardown';
import { Hookup } from './hookup';

/** Both stages of the clamps, on the orders that the store works out, as the job page shows them. */
@Component({
  selector: 'vt-clamps-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Hookup, Cleardown],
  template: `
    @if (clearing()) {
      <vt-cleardown [work]="work()" [rescue]="rescue()" [run]="clearingRun()" (goOn)="asked.push($event)" />
    } @else {
      <vt-hookup [work]="work()" [rescue]="rescue()" [run]="hookupRun()" (goOn)="asked.push($event)" />
    }
  `,
})
class ClampsHost {
  readonly work = input.required<Work>();
  readonly clearing = input(false);
  readonly asked: string[] = [];
  private readonly store = inject(Store);
  readonly rescue = this.store.selectSignal(selectRescue);
  readonly hookupRun = this.store.selectSignal(selectHookupRun);
  readonly clearingRun = this.store.selectSignal(selectClearingRun);
}

/** The questions, and the answers to them. */
let questions: string[] = [];
function answerQuestions(): void {
  questions = [];
  const ask = (question: string): Promise<string> => {
    questions.push(question);
    return Promise.resolve('its volts climb');
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: ReasonPrompt, useValue: { ask } },
      { provide: Cues, useValue: { give: () => undefined } },
    ],
  });
}

const positive = event('polarity.proved', { signs: ['mark', 'meter'] });
const nextButton = ({ root }: JobHarness<ClampsHost>): HTMLButtonElement => root.querySelector('.next')!;

/** Until what a tap does not wait for is drawn as well. */
const drawnLater = () => new Promise<void>((done) => setTimeout(done, 100));

/** Confirms step after step, and returns the titles in the order they were asked for. */
async function workThrough(harness: JobHarness<ClampsHost>): Promise<string[]> {
  const titles: string[] = [];
  for (let title; (title = harness.root.querySelector('vt-step-card h2')?.textContent); ) {
    titles.push(title);
    nextButton(harness).click();
    // A wait that is cut short is asked about first.
    await new Promise((done) => setTimeout(done));
    await harness.refresh();
    if (titles.length > 20) throw new Error(`no end: ${titles.join(', ')}`);
  }
  return titles;
}

describe('Hook up', () => {
  beforeEach(answerQuestions);
  const show = (events: readonly JobEvent[]) => jobHarness(ClampsHost, [opened(), ...events]);

  it('tells a hazard once, and keeps it as a mark while it lasts', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const full: string[] = [];
    const marks: string[] = [];
    while (harness.root.querySelector('vt-step-card')) {
      const texts = (selector: string): string[] =>
        [...harness.root.querySelectorAll(selector)].map((line) => line.textContent.trim());
      full.push(...texts('.hazard:not(.is-still) span'));
      marks.push(...texts('.is-still span'));
      nextButton(harness).click();
      await new Promise((done) => setTimeout(done));
      await harness.refresh();
    }
    expect(full.filter((line) => line.includes('free clamp')).length).toBe(1);
    expect(full.find((line) => line.includes('free clamp'))).toMatch(/: \d+ A if it touches metal\./);
    expect(marks).toContain('A free clamp is live');
    expect(new Set(full).size).toBe(full.length);
  });

  it('asks why a wait is cut short, and logs it', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    await workThrough(harness);
    expect(questions.length).toBe(1);
    expect(questions[0]).toMatch(/^Why go on \d+:\d\d early\?/);
    const told = harness.reported().filter((e) => e.type === 'override.given');
    expect(told.map((e) => e.data)).toEqual([{ rule: 'donorWaitMinLeast', reason: 'its volts climb' }]);
  });

  it('sends back to Plan without a source, and to Locate without a sure positive', async () => {
    const bare = await show([]);
    expect(bare.root.textContent).toContain('No source is chosen yet');
    nextButton(bare).click();
    expect(bare.fixture.componentInstance.asked).toEqual(['plan']);
  });

  it('does not offer the first step while positive is not proved', async () => {
    const unsure = await show([planned('donor+heavy')]);
    nextButton(unsure).click();
    expect(unsure.fixture.componentInstance.asked).toEqual(['locate']);
    expect(unsure.reported()).toEqual([]);
  });

  it('goes through the order of a donor: red before black, the last black on ground away from the battery', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const titles = await workThrough(harness);
    const clamps = titles.filter((t) => /^(Red|Black)/.test(t));
    expect(clamps).toEqual([
      'Red on casualty battery +',
      jasmine.stringMatching(/^Red on donor/),
      jasmine.stringMatching(/^Black on donor/),
      'Black on casualty ground point',
    ]);
    expect(harness.reported().filter((e) => e.type === 'clamp.attached').length).toBe(4);
    expect(harness.root.textContent).toContain('Stand clear of the battery');
  });

  it('goes on to Crank by itself with its last step, once, and stays when it is opened afterwards', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    await workThrough(harness);
    expect(harness.fixture.componentInstance.asked).toEqual(['crank']);
    const log = harness.reported();
    TestBed.resetTestingModule();
    const again = await show([positive, planned('donor+heavy'), ...log]);
    expect(again.fixture.componentInstance.asked).toEqual([]);
    nextButton(again).click();
    expect(again.fixture.componentInstance.asked).toEqual(['crank']);
  });

  it('asks for no tap when a wait is over', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    while (harness.root.querySelector('vt-step-card h2')?.textContent !== 'Let it take charge') {
      nextButton(harness).click();
      await harness.refresh();
    }
    await drawnLater();
    const waits = (): unknown[] =>
      harness.reported().filter((e) => e.type === 'step.confirmed' && e.data.step === 'wait');
    expect(waits()).toEqual([]);
    const later = Date.now() + 30 * 60_000;
    spyOn(Date, 'now').and.returnValue(later);
    await new Promise((done) => setTimeout(done, 500));
    await harness.refresh();
    expect(waits().length).toBe(1);
    expect(questions).toEqual([]);
    expect(harness.fixture.componentInstance.asked).toEqual(['crank']);
  });

  it('shows what each contact carries before it is on, from the circuit', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const volts: number[] = [];
    while (harness.root.querySelector('vt-step-card')) {
      const [gap] = harness.root.querySelectorAll('vt-step-card dd');
      if (gap) volts.push(parseFloat(gap.textContent));
      nextButton(harness).click();
      await harness.refresh();
      await drawnLater();
    }
    // The first end hangs free. The last closes the loop: a charged donor against a battery at 11.8 V.
    expect(volts[0]).toBeCloseTo(0, 1);
    expect(volts.at(-1)!).toBeGreaterThan(0.3);
    expect(volts.at(-1)!).toBeLessThan(3);
  });

  it('never shows what one contact carries beside another step, also before there is a place for it', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const figures = (): string[] =>
      [...harness.root.querySelectorAll('vt-step-card dd')].map((dd) => dd.textContent.trim());
    const counts: [tap: number, rest: number][] = [];
    while (harness.root.querySelector('vt-step-card')) {
      const [atOnce, before] = [figures(), counts.length];
      await drawnLater();
      await harness.refresh();
      // The first drawing is the last one.
      if (atOnce.length > 0) expect(atOnce).withContext(`step ${before}`).toEqual(figures());
      counts.push([atOnce.length, figures().length]);
      nextButton(harness).click();
      await harness.refresh();
    }
    // Figures that are there already are shown at once; others take their place later.
    expect(counts).toContain([0, 3]);
    expect(counts).toContain([3, 3]);
    expect(counts).toContain([0, 0]);
    expect(counts).not.toContain([3, 0]);
  });

  it('shows the step to be done at once, and the lines before and after it in a task of their own', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const lines = (list: string): string[] =>
      [...harness.root.querySelectorAll(`${list} li`)].map((li) => li.textContent.trim());
    const title = (): string => harness.root.querySelector('vt-step-card h2')!.textContent;
    const [first, before] = [title(), lines('vt-steps-to-come')];
    nextButton(harness).click();
    await harness.refresh();
    expect(title()).not.toBe(first);
    expect([lines('vt-steps-done').length, lines('vt-steps-to-come')]).toEqual([0, before]);
    await drawnLater();
    expect(lines('vt-steps-done')).toEqual([jasmine.stringContaining(first)]);
    // Numbered on: what came third comes third still, and the one that is now to be done is no longer among them.
    expect(lines('vt-steps-to-come')).toEqual(before.slice(1));
    expect(harness.root.querySelector<HTMLOListElement>('vt-steps-to-come ol')!.start).toBe(3);
  });

  it('has the step to come judged before the tap that shows it, as the circuit says it', async () => {
    const harness = await show([positive, planned('donor+heavy')]);
    const host = harness.fixture.componentInstance;
    const judgedNow = (step: HookupStep, state: HookupState) =>
      judgedStep(host.rescue()!.scene, state, step.action, host.work().rules);
    let steps = 0;
    for (; host.hookupRun().later.length > 0; steps++) {
      const { next, later } = host.hookupRun();
      const before = judgedNow(later[0]!, act(host.work().job.hookup, next!.action));
      nextButton(harness).click();
      await new Promise((done) => setTimeout(done));
      await harness.refresh();
      const { job, rules } = host.work();
      expect(judgedNow(host.hookupRun().next!, job.hookup)).toBe(before);
      const { scene } = host.rescue()!;
      expect(before.hazards).toEqual(hazardsOf(scene, job.hookup, later[0]!.action, rules));
    }
    expect(steps).toBeGreaterThan(5);
  });

  it('takes nothing more once the job is closed', async () => {
    const harness = await show([positive, planned('donor+heavy'), event('job.closed', { note: '' })]);
    expect(nextButton(harness).textContent).toContain('Job is closed');
    nextButton(harness).click();
    expect(harness.fixture.componentInstance.asked).toEqual(['verdict']);
    expect(harness.root.textContent).not.toContain('I did something else');
  });
});

describe('Clear down', () => {
  beforeEach(answerQuestions);
  async function joined(optionId: string, ...later: JobEvent[]): Promise<JobHarness<ClampsHost>> {
    const before = await jobHarness(ClampsHost, [opened(), positive, planned(optionId)]);
    await workThrough(before);
    const events = [opened(), positive, planned(optionId), ...before.reported(), ...later];
    expect(foldJob(events)).not.toBeNull();
    TestBed.resetTestingModule();
    return jobHarness(ClampsHost, events, {}, { clearing: true });
  }

  it('takes the clamps off in reverse, and says so when everything is off', async () => {
    const harness = await joined('donor+heavy');
    const clamps = (await workThrough(harness)).filter((t) => /^(Red|Black)/.test(t));
    expect(clamps).toEqual([
      'Black off casualty ground point',
      jasmine.stringMatching(/^Black off donor/),
      jasmine.stringMatching(/^Red off donor/),
      'Red off casualty battery +',
    ]);
    expect(harness.root.textContent).toContain('Everything is off and laid down');
    // The machine has things to set again, so the stage stays.
    expect(harness.fixture.componentInstance.asked).toEqual([]);
    nextButton(harness).click();
    expect(harness.fixture.componentInstance.asked).toEqual(['verdict']);
  });

  it('keeps the engine running and asks for charging volts, a drive and the resets once it has started', async () => {
    const started = [
      event('attempt.started', {}),
      event('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: null }),
    ];
    const harness = await joined('lithium@12', ...started);
    expect(harness.root.textContent).toContain('Keep the engine running');
    await workThrough(harness);
    expect(harness.root.textContent).toContain('Nobody drives yet: whether it charges was not read');
    await harness.tap('Clock');
    expect(harness.button('Clock').getAttribute('aria-pressed')).toBe('true');
    expect(nextButton(harness).textContent).toContain('Read charging volts');
    nextButton(harness).click();
    expect(harness.fixture.componentInstance.asked).toEqual(['measure']);
  });

  it('has nothing to take off where nothing was connected', async () => {
    const harness = await jobHarness(ClampsHost, [opened()], {}, { clearing: true });
    expect(harness.root.textContent).toContain('Nothing was connected');
  });
});
