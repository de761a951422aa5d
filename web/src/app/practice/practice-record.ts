import { Injectable } from '@angular/core';
import {
  caseFor,
  type DrillKind,
  type PracticeAction,
  type RungCase,
  type RungId,
  type ShownSkill,
  SKILL_IDS,
  type SkillId,
} from '@voltrek/core/practice';
import { type CardInput, createEmptyCard, fsrs, type Grade, Rating } from 'ts-fsrs';
import { keepText, keptValue } from '../shared/data/kept';

/** An exercise with numbered cases: a rung of the ladder, or a drill. */
export type Trained = RungId | `drill-${DrillKind}`;

/** How a rung, or a drill, stands on this device. */
export interface RungProgress {
  /** Number of the case that comes next. */
  readonly next: number;
  readonly passed: number;
  /** Whether the last case was passed; null where none was ended. */
  readonly lastPassed: boolean | null;
}

/** How a case went. */
export interface CaseEnd {
  readonly passed: boolean;
  readonly hints: number;
  readonly skills: readonly ShownSkill[];
}

/** A case of a rung that was ended. */
export interface EndedCase extends CaseEnd, RungCase {
  readonly at: string;
}

/** How a skill stands, by the cases that asked for it. */
export interface SkillProgress {
  readonly id: SkillId;
  /** Whether each of those cases showed it, oldest first. */
  readonly shown: readonly boolean[];
  /** When it is to be practised again; null of one that no case asked for. */
  readonly dueAt: Date | null;
  /** The chance that it would be shown now, 0 to 1; 0 of one that no case asked for. */
  readonly recall: number;
}

const RUN = 'voltrek.practice.run.';
const RUNGS = 'voltrek.practice.rungs';
const ENDED = 'voltrek.practice.ended';
const FRESH: RungProgress = { next: 1, passed: 0, lastPassed: null };

/** When a skill is to be practised again: soon where it was missed, later the better it sits. */
const scheduler = fsrs({ enable_fuzz: false });
const gradeOf = (good: boolean, hints: number): Grade => {
  if (!good) return Rating.Again;
  return hints > 0 ? Rating.Hard : Rating.Good;
};

/** Runs that are under way, and how rungs and skills stand: on this device, since practice is nobody else's business. */
@Injectable({ providedIn: 'root' })
export class PracticeRecord {
  actions(code: string): readonly PracticeAction[] {
    return keptValue<readonly PracticeAction[]>(RUN + code, []);
  }

  keep(code: string, actions: readonly PracticeAction[]): void {
    keepText(RUN + code, JSON.stringify(actions));
  }

  progressOf(rung: Trained): RungProgress {
    const { next, passed, lastPassed } = this.rungs()[rung] ?? FRESH;
    return { next, passed, lastPassed };
  }

  /** Every case of a rung that was ended here, oldest first. */
  endedCases(): readonly EndedCase[] {
    return keptValue<readonly EndedCase[]>(ENDED, []);
  }

  /** A drill has ended. */
  drillEnded(kind: DrillKind, number: number, passed: boolean): void {
    this.moveOn(`drill-${kind}`, number, passed);
  }

  /** A case of a rung has ended. It counts once. A case beyond the next one of its rung moves no rung: somebody sent it, or a skill asked for it. */
  ended({ rung, number }: RungCase, end: CaseEnd, now = new Date()): void {
    const all = this.endedCases();
    if (all.some((one) => one.rung === rung && one.number === number)) return;
    const { passed, hints, skills } = end;
    keepText(ENDED, JSON.stringify([...all, { rung, number, at: now.toISOString(), passed, hints, skills }]));
    this.moveOn(rung, number, passed);
  }

  /** How each skill stands now. */
  skills(now = new Date()): readonly SkillProgress[] {
    const all = this.endedCases();
    return SKILL_IDS.map((id) => {
      const asked = all.flatMap(({ skills, hints, at }) =>
        skills.flatMap((skill) => (skill.id === id ? [{ good: skill.good, hints, at: new Date(at) }] : [])),
      );
      const card = asked.reduce<CardInput | null>(
        (last, { good, hints, at }) =>
          scheduler.next(last ?? createEmptyCard(at), at, gradeOf(good, hints)).card,
        null,
      );
      return {
        id,
        shown: asked.map(({ good }) => good),
        dueAt: card && new Date(card.due),
        recall: card ? scheduler.get_retrievability(card, now, false) : 0,
      };
    });
  }

  /** The case with most to teach: of a missed skill that is due, else of another that is due. Then of a new one, then of the weakest. */
  next(now = new Date()): RungCase {
    const all = this.skills(now);
    const byRecall = all.filter(({ shown }) => shown.length > 0).sort((a, b) => a.recall - b.recall);
    const due = byRecall.filter(({ dueAt }) => dueAt !== null && dueAt <= now);
    const { id, shown } =
      due.find((one) => one.shown.at(-1) === false) ??
      due[0] ??
      all.find((one) => one.shown.length === 0) ??
      byRecall[0]!;
    return caseFor(id, shown.length, (rung) => this.unworkedFrom(rung));
  }

  /** The first number of a rung from which nothing was ended here. */
  private unworkedFrom(rung: RungId): number {
    const worked = this.endedCases().flatMap((one) => (one.rung === rung ? [one.number] : []));
    return Math.max(this.progressOf(rung).next, ...worked.map((number) => number + 1));
  }

  private rungs(): Partial<Record<Trained, RungProgress>> {
    return keptValue<Partial<Record<Trained, RungProgress>>>(RUNGS, {});
  }

  private moveOn(rung: Trained, number: number, passed: boolean): void {
    const before = this.progressOf(rung);
    if (number !== before.next) return;
    const progress: RungProgress = {
      next: number + 1,
      passed: before.passed + (passed ? 1 : 0),
      lastPassed: passed,
    };
    keepText(RUNGS, JSON.stringify({ ...this.rungs(), [rung]: progress }));
  }
}
