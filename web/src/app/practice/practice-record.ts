import { Injectable } from '@angular/core';
import { type CardInput, createEmptyCard, fsrs, type Grade, Rating } from 'ts-fsrs';
import type { DrillKind, PracticeAction, RungId } from '@voltrek/core/practice';
import { keepText, keptValue } from '../shared/data/kept';

/** An exercise that comes back by how it went: a rung of the ladder, or a drill. */
export type Trained = RungId | `drill-${DrillKind}`;

/** How a rung, or a drill, stands on this device. */
export interface RungProgress {
  /** Number of the case that comes next. */
  readonly next: number;
  readonly passed: number;
  /** Whether the last case was passed; null where none was ended. */
  readonly lastPassed: boolean | null;
  /** The skill so far, by which it comes back; null where no case was ended. */
  readonly card: CardInput | null;
}

/** How a case of a rung went. */
export interface CaseEnd {
  readonly passed: boolean;
  readonly hints: number;
}

const RUN = 'voltrek.practice.run.';
const RUNGS = 'voltrek.practice.rungs';
const FRESH: RungProgress = { next: 1, passed: 0, lastPassed: null, card: null };

/** When a rung is to be practised again: soon where it went wrong, later the better it sits. */
const scheduler = fsrs({ enable_fuzz: false });
const gradeOf = ({ passed, hints }: CaseEnd): Grade => {
  if (!passed) return Rating.Again;
  return hints > 0 ? Rating.Hard : Rating.Good;
};

/** Runs that are under way, and how the ladder stands: on this device, since practice is nobody else's business. */
@Injectable({ providedIn: 'root' })
export class PracticeRecord {
  actions(code: string): readonly PracticeAction[] {
    return keptValue<readonly PracticeAction[]>(RUN + code, []);
  }

  keep(code: string, actions: readonly PracticeAction[]): void {
    keepText(RUN + code, JSON.stringify(actions));
  }

  progressOf(rung: Trained): RungProgress {
    return keptValue<Partial<Record<Trained, RungProgress>>>(RUNGS, {})[rung] ?? FRESH;
  }

  /** A case of the ladder has ended. One that is not on it, or was ended before, moves nothing. */
  ended(rung: Trained, number: number, end: CaseEnd, now = new Date()): void {
    const all = keptValue<Partial<Record<Trained, RungProgress>>>(RUNGS, {});
    const before = all[rung] ?? FRESH;
    if (number !== before.next) return;
    const { card } = scheduler.next(before.card ?? createEmptyCard(now), now, gradeOf(end));
    const progress: RungProgress = {
      next: number + 1,
      passed: before.passed + (end.passed ? 1 : 0),
      lastPassed: end.passed,
      card,
    };
    keepText(RUNGS, JSON.stringify({ ...all, [rung]: progress }));
  }
}
