import type { KitNeed } from '@voltrek/core/job';
import * as yup from 'yup';
import { idText, parsed, uuid } from './text.js';
import type { DueFollowUp } from './wire.js';

/** The open things that one shift leaves to the next. */
export interface ShiftLeft {
  readonly calls: readonly {
    readonly number: number;
    readonly title: string;
    readonly placeName: string;
    readonly vanId: string | null;
    readonly technicianId: string | null;
    readonly promisedAt: string | null;
    /** Its job; null while nobody has begun it. */
    readonly jobId: string | null;
    /** When what is on a charger is due; null where nothing is. */
    readonly chargeUntil: string | null;
  }[];
  /** Kit that must be charged or cleaned, each need once. */
  readonly kit: readonly {
    readonly kitItemId: string;
    readonly name: string;
    readonly vanId: string;
    readonly need: KitNeed;
  }[];
  /** Rechecks that are late, or due within a week. */
  readonly rechecks: readonly DueFollowUp[];
}

/** The end of a shift: signed by the person who leaves, then by the one who comes. */
export interface ShiftEnd {
  readonly id: string;
  readonly givenBy: string;
  readonly givenAt: string;
  readonly note: string;
  /** Null until somebody has taken it over. */
  readonly takenBy: string | null;
  readonly takenAt: string | null;
  /** As it stood when it was given over. */
  readonly left: ShiftLeft;
}

/** A shift that is given over, as it is reported. */
export interface NewShiftEnd {
  readonly id: string;
  readonly by: string;
  readonly note: string;
}

export const NEW_SHIFT_END = yup
  .object({ id: uuid().required(), by: idText(), note: yup.string().trim().max(1000).defined() })
  .noUnknown()
  .required();

/** The end of a shift from untrusted input. @throws yup.ValidationError with a path and a reason for each fault */
export const parseNewShiftEnd = (input: unknown): NewShiftEnd => parsed(NEW_SHIFT_END, input);
