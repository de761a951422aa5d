import { randomUUID } from 'node:crypto';
import { expect, type Locator, type Page } from '@playwright/test';
import type { Stage as StageAddress } from '@voltrek/core/job';
import { type Before, postCall, postJob } from './posted-job';
import { inLanguage } from './speech';

/** The parts of a machine that a test changes for its own. */
export interface KnownMachine {
  readonly batteries: readonly object[];
  readonly points: readonly { readonly id: string; readonly kind: string }[];
}

export type StageName =
  | 'Scene'
  | 'Checks'
  | 'Locate'
  | 'Measure'
  | 'Plan'
  | 'Hook up'
  | 'Crank'
  | 'Wake'
  | 'Clear down'
  | 'Verdict'
  | 'Stop';

/** The bar on a small screen while stops were not looked at. */
const NOT_SEEN = /not seen yet|noch nicht gesehen/;

/** The bar once an order has no more steps. */
const STEPS_DONE = /Go on|Read charging volts|Weiter|Ladespannung messen/;

/** Works the real interface the way a technician does: by what the screen says. */
export class Technician {
  constructor(
    readonly page: Page,
    readonly url: string,
    /** The language of the screen; every label here is English. */
    readonly language = 'en',
  ) {
    this.say = inLanguage(language);
  }

  private readonly say: (english: string) => string;

  /** Sets the language of the device, and keeps to it. */
  speaking(language: string): Technician {
    return new Technician(this.page, this.url, language);
  }

  /** A new call for this machine, put on the board without touching the demo's own. */
  async newCall(modelId: string, ambientC = -4): Promise<string> {
    return (await postCall(this.page.request, this.url, modelId, ambientC)).title;
  }

  /** A machine of its own in the atlas: a car of the demo's, changed. @returns its id */
  async addMachine(model: string, change: (known: KnownMachine) => object): Promise<string> {
    const entries = `${this.url}/api/models`;
    const known = (await (await this.page.request.get(`${entries}/brinmoor-pella`)).json()) as {
      machine: KnownMachine;
    };
    const id = `${model}-${randomUUID().slice(0, 8)}`;
    const machine = { ...known.machine, ...change(known.machine), id, model: `Pella, ${id}` };
    const added = await this.page.request.post(entries, {
      data: { by: 'crew-1', note: '', basedOn: null, machine },
    });
    expect(added.status(), await added.text()).toBe(201);
    return id;
  }

  async openBoard(): Promise<void> {
    await this.page.goto(`${this.url}/board`);
    await expect(this.page.getByRole('heading', { name: this.say('Board') })).toBeVisible();
  }

  /** Opens a job on a fresh call and stands on Scene. */
  async openJob(modelId: string, ambientC = -4): Promise<string> {
    const title = await this.newCall(modelId, ambientC);
    await this.openBoard();
    await this.page.getByRole('button', { name: title }).click();
    await this.expectStage('Scene');
    return title;
  }

  /**
   * Opens a job at a stage whose log was posted, not walked: for tests that are about that stage.
   *
   * @returns the title of its call
   */
  async at(stage: StageAddress, modelId: string, before: Before = {}): Promise<string> {
    const { title, jobId } = await postJob(this.page.request, this.url, modelId, before);
    await this.page.goto(`${this.url}/job/${jobId}/${stage}`);
    await expect(this.page.locator('.next')).toBeVisible();
    return title;
  }

  async expectStage(name: StageName): Promise<void> {
    await expect(
      this.page.getByRole('heading', { level: 1, name: this.say(name), exact: true }),
    ).toBeVisible();
  }

  button(name: string | RegExp): Locator {
    const label = typeof name === 'string' ? this.say(name) : name;
    return this.page.getByRole('button', { name: label, exact: typeof name === 'string' });
  }

  /** The words of the next action when it was last tapped. */
  private pressed = '';

  /** Taps a button by its words. */
  async tap(...names: (string | RegExp)[]): Promise<void> {
    for (const name of names) await this.button(name).click();
  }

  /** Taps the one next action, checking first that it says what is expected. */
  async next(label: string | RegExp): Promise<void> {
    const button = this.page.locator('.next');
    await expect(button).toContainText(typeof label === 'string' ? this.say(label) : label);
    await expect(button).toBeEnabled();
    this.pressed = (await button.textContent()) ?? '';
    await button.click();
  }

  async openStage(name: string): Promise<void> {
    await this.page
      .getByRole('navigation', { name: this.say('Stages') })
      .getByRole('button', { name: new RegExp(this.say(name)) })
      .click();
  }

  /** Types a figure on the pad and takes it. */
  async read(digits: string): Promise<void> {
    const pad = this.page.getByRole('group', { name: this.say('Number pad') });
    for (const digit of digits) await pad.getByRole('button', { name: digit, exact: true }).click();
    await this.next(this.say('Take').split(':')[0]!);
  }

  /** On a small screen the stop conditions are looked at first. */
  async safeToWork(): Promise<void> {
    const bar = this.page.locator('.next');
    await expect(bar).toBeEnabled();
    for (let screen = 0; screen < 4 && NOT_SEEN.test((await bar.textContent()) ?? ''); screen++) {
      const before = (await bar.textContent()) ?? '';
      await this.next(NOT_SEEN);
      await expect(bar).not.toHaveText(before);
    }
    await this.next('Safe to work here');
  }

  async toMeasure(symptom: string): Promise<void> {
    await this.safeToWork();
    await this.expectStage('Checks');
    await this.tap(symptom);
    await this.next('Go on to Locate');
    await this.tap('+ mark or P', 'meter reads plus');
    await this.expectStage('Measure');
  }

  /** Chooses a source on Plan by its name and goes on to Hook up. */
  async take(source: RegExp): Promise<void> {
    await this.expectStage('Plan');
    // One source after another names both, and another van may carry the like.
    await this.page
      .getByRole('radio', { name: source })
      .filter({ hasNotText: /charges, then|lädt, dann|, (from|von) Van/ })
      .click();
    await this.next(/^\s*(Take|Go on to Hook up|Nehmen|Weiter: Klemmen)/);
    await this.expectStage('Hook up');
  }

  /** Confirms every step of the order of Hook up or Clear down, and returns their titles. */
  async workSteps(until = STEPS_DONE): Promise<string[]> {
    const titles: string[] = [];
    const heading = this.page.locator('#stage-title');
    const ofClamps = new RegExp(`^\\s*(${this.say('Hook up')}|${this.say('Clear down')})\\s*$`);
    await expect(heading).toHaveText(ofClamps);
    // The words of the tap that leads here must be gone, and a new step on its card: a frame later than the tap.
    if (this.pressed) await expect(this.page.locator('.next')).not.toHaveText(this.pressed);
    const isOver = async (): Promise<boolean> =>
      !ofClamps.test((await heading.textContent()) ?? '') ||
      until.test((await this.page.locator('.next').textContent()) ?? '');
    for (let i = 0; i < 12; i++) {
      await expect.poll(async () => (await this.stepTitle()) !== null || (await isOver())).toBe(true);
      const before = await this.stepTitle();
      if (before === null || (await isOver())) return titles;
      titles.push(before);
      await this.page.locator('.next').click();
      // No test waits for minutes: going on early is asked about.
      if (before === this.say('Let it take charge')) {
        await this.page.getByLabel(this.say('Reason, kept in the log')).fill('the test does not wait');
        await this.tap('Go on, and log it');
      }
      await expect.poll(() => this.stepTitle()).not.toBe(before);
    }
    throw new Error(`the order did not end: ${titles.join(', ')}`);
  }

  /** The step on the card, or null when the order is done. */
  stepTitle(): Promise<string | null> {
    return this.page.evaluate(() => document.querySelector('vt-step-card h2')?.textContent ?? null);
  }

  /** From Measure through Plan, Hook up and Crank to the end of Clear down, with a source that starts it. */
  async startWith(source: RegExp): Promise<void> {
    await this.next('Go on to Plan');
    await this.take(source);
    await this.workSteps();
    await this.tryOnce('It runs');
    await this.workSteps();
  }

  async tryOnce(outcome: string): Promise<void> {
    await this.next(/now, try|start, try|starten, Versuch|drücken, Versuch/);
    await this.tap(outcome);
  }

  /** Gives the verdict, closes the job, and checks that the screen says so. */
  async close(verdict: string): Promise<void> {
    await this.expectStage('Verdict');
    await expect(this.page.getByRole('heading', { level: 2, name: verdict })).toBeVisible();
    await this.giveAndClose();
    await this.saved();
  }

  /** Holds the action that closes the job for good. */
  async closeJob(): Promise<void> {
    const bar = this.page.locator('.next');
    await expect(bar).toContainText(this.say('Close the job'));
    await expect(bar).not.toHaveAttribute('aria-disabled', 'true');
    await bar.click({ delay: 700 });
  }

  /** Gives the verdict that is proposed, and closes the job. */
  async giveAndClose(): Promise<void> {
    await this.next('Give verdict');
    await this.closeJob();
    await expect(this.page.locator('.next')).toContainText('Closed');
  }

  /** From a start on: clamps off, the verdict as it is proposed, closed. */
  async finish(): Promise<void> {
    await this.workSteps();
    await this.openStage('Verdict');
    await this.giveAndClose();
  }

  /** The technician takes the source that is proposed, and it works. */
  async plainCase(read: () => Promise<void>): Promise<void> {
    await this.toMeasure('one click');
    await read();
    await this.next('Go on to Plan');
    await this.expectStage('Plan');
    await this.next(/^\s*Take/);
    await this.workSteps();
    await this.tryOnce('It runs');
    await this.finish();
  }

  /**
   * Waits until the server has everything. What a tap changed is on the screen a frame later: before that the bar tells of before the tap.
   */
  async saved(): Promise<void> {
    await this.page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn))));
    await expect(this.page.getByText(this.language === 'de' ? /^gespeichert/ : /all saved/)).toBeVisible();
  }
}
