import { Injectable } from '@angular/core';

/** The longest wait for an idle moment: work that is put off must still come, milliseconds. */
const LONGEST_MS = 1_000;

/** Delay where the browser does not tell when it is idle: long enough for a page that was just opened to be drawn, milliseconds. */
const UNTOLD_MS = 100;

/** Resolves when the page has nothing more pressing to do, such as drawing what was just opened. */
export function whenIdle(): Promise<void> {
  return new Promise((resolve) => {
    if ('requestIdleCallback' in globalThis) requestIdleCallback(() => resolve(), { timeout: LONGEST_MS });
    else setTimeout(resolve, UNTOLD_MS);
  });
}

/** A page that is not looked at has no frames: what waits for the next one waits no longer, milliseconds. */
const UNSEEN_MS = 100;

/** Resolves after the next frame, or in a moment on a page that has none: a tap is drawn before what is done about it. */
export function whenDrawnOrUnseen(): Promise<void> {
  return Promise.race([whenDrawn(), new Promise<void>((resolve) => setTimeout(resolve, UNSEEN_MS))]);
}

/** Resolves in a task of its own after the next frame: what the page shows by then is laid out and costs nothing to ask. */
export function whenDrawn(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
}

/** Drawings in several steps, between which the page looks idle. */
@Injectable({ providedIn: 'root' })
export class Drawings {
  private readonly underWay = new Set<Promise<void>>();
  private lastTurn = Promise.resolve();

  /** Tells of a drawing; `done` resolves with its last step, or when it is given up. */
  add(done: Promise<void>): void {
    this.underWay.add(done);
    void done.finally(() => this.underWay.delete(done));
  }

  /** Resolves when a frame has gone by since the turn before: what takes long to draw shares its frame with nothing else that does. */
  turn(): Promise<void> {
    this.lastTurn = this.lastTurn.then(whenDrawn);
    return this.lastTurn;
  }

  /** Resolves when the page is idle and nothing is half drawn: a worker that starts before takes the processor from the screen. */
  async done(): Promise<void> {
    await whenIdle();
    const late = new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), LONGEST_MS));
    // A part that is drawn may have brought the next.
    while (this.underWay.size > 0)
      if ((await Promise.race([late, Promise.all(this.underWay)])) === 'late') return;
  }
}
