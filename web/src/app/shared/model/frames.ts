import { ApplicationRef, inject, Injectable } from '@angular/core';

/** Longest wait for an idle moment: work that is put off must still come, ms. */
const LONGEST_MS = 1_000;
/** Wait where the browser does not tell when it is idle: long enough to draw a page that was just opened, ms. */
const NO_IDLE_MS = 100;
/** A hidden page has no frames: work that waits for one waits no longer than this, ms. */
const HIDDEN_MS = 100;

/**
 * A moment to go on. A worker that starts before `quiet` takes the processor from the screen.
 *
 * - `now`: at once;
 * - `frame`: after the next frame, so that a tap is drawn before its consequences;
 * - `turn`: after a frame that no other slow drawing shares;
 * - `idle`: when the browser has nothing more pressing to do;
 * - `quiet`: when it is idle and nothing is half drawn.
 */
export type Moment = 'now' | 'frame' | 'turn' | 'idle' | 'quiet';

/** Puts work in order around the frames that a hand sees. */
@Injectable({ providedIn: 'root' })
export class Frames {
  private readonly page = inject(ApplicationRef);
  private readonly underWay = new Set<Promise<unknown>>();
  private lastTurn = Promise.resolve();

  /**
   * Resolves at a moment. Makes a change then, and draws it in the same task: left to the framework, two slow drawings may share one task
   * and hold up a tap.
   */
  async after(moment: Moment, change?: () => void): Promise<void> {
    const make = (): void => {
      change?.();
      if (change) this.page.tick();
    };
    if (moment === 'now') {
      make();
      return;
    }
    const made = this.comes(moment).then(make);
    if (moment === 'turn' && change) this.during(made);
    return made;
  }

  /** Counts a drawing as half drawn until it settles. */
  during(drawing: Promise<unknown>): void {
    this.underWay.add(drawing);
    void drawing.finally(() => this.underWay.delete(drawing));
  }

  private comes(moment: Exclude<Moment, 'now'>): Promise<void> {
    switch (moment) {
      case 'frame':
        return Promise.race([nextFrame(), pause(HIDDEN_MS)]);
      case 'turn':
        return (this.lastTurn = this.lastTurn.then(nextFrame));
      case 'idle':
        return idle();
      case 'quiet':
        return this.quiet();
    }
  }

  private async quiet(): Promise<void> {
    await idle();
    const late = pause(LONGEST_MS).then(() => 'late' as const);
    // A part that is drawn may have brought the next.
    while (this.underWay.size > 0)
      if ((await Promise.race([late, Promise.all(this.underWay)])) === 'late') return;
  }
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Resolves in a task of its own after the next frame: the page is laid out by then and costs nothing to ask. */
const nextFrame = (): Promise<void> =>
  new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));

const idle = (): Promise<void> =>
  'requestIdleCallback' in globalThis
    ? new Promise((resolve) => requestIdleCallback(() => resolve(), { timeout: LONGEST_MS }))
    : pause(NO_IDLE_MS);
