import type { Machine, MachineClass } from '@voltrek/core/machine';
import * as yup from 'yup';
import type { Fault } from './fault.js';
import { idText, parsed, shortText } from './text.js';

export const CONFIDENCES = ['maker', 'found-once', 'confirmed'] as const;
/** How far an entry can be trusted: from the maker's papers, found by one person, or seen again by another. */
export type Confidence = (typeof CONFIDENCES)[number];

export const CHANGE_KINDS = ['loaded', 'added', 'corrected', 'confirmed', 'photo', 'imported'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/** A machine as a list shows it. */
export interface MachineSummary {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly machineClass: MachineClass;
  readonly systemVolts: 12 | 24;
  /** The places of its batteries. */
  readonly places: string;
  readonly confidence: Confidence;
}

/** The result of a search: the nearest first, and the size of the atlas. */
export interface MachineSearch {
  readonly machines: readonly MachineSummary[];
  readonly total: number;
}

/** One change of an entry, kept for good. */
export interface MachineChange {
  readonly revision: number;
  readonly kind: ChangeKind;
  /** Crew member. */
  readonly by: string;
  readonly at: string;
  readonly note: string;
}

export interface MachinePhoto {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** An entry of the atlas with all that is known about it. */
export interface AtlasEntry {
  readonly machine: Machine;
  readonly confidence: Confidence;
  /** Counts every change; a correction must name the one it was made on. */
  readonly revision: number;
  readonly history: readonly MachineChange[];
  readonly photos: readonly MachinePhoto[];
}

/** A new or corrected entry, with who made it and why. */
export interface EntryChange {
  readonly machine: unknown;
  readonly by: string;
  readonly note: string;
  /** Revision that a correction was made on; null for a new entry. */
  readonly basedOn: number | null;
}

export const ENTRY_CHANGE = yup
  .object({
    machine: yup.mixed().required(),
    by: idText(),
    note: yup.string().max(200).defined(),
    basedOn: yup.number().integer().min(1).nullable().defined(),
  })
  .noUnknown()
  .strict()
  .required();

/** A change to the atlas from untrusted input; its machine is still to be parsed. @throws yup.ValidationError */
export function parseEntryChange(input: unknown): EntryChange {
  const { machine, ...rest } = parsed(ENTRY_CHANGE, input);
  return { ...rest, machine };
}

export const CONFIRMATION = yup
  .object({ by: idText(), note: shortText(200).notRequired() })
  .noUnknown()
  .strict()
  .required();

/** Reads the name of the person who confirms an entry, from untrusted input. @throws yup.ValidationError */
export function parseConfirmation(input: unknown): { readonly by: string; readonly note: string } {
  const { by, note } = parsed(CONFIRMATION, input);
  return { by, note: note ?? '' };
}

/** A fault in one row of a file. */
export interface RowFault extends Fault {
  /** Line of the file, from 1. */
  readonly line: number;
}

/** The changes that an import would make, or made. */
export interface ImportReport {
  readonly added: readonly string[];
  /** Names of what changes, with the parts that change. */
  readonly changed: readonly { readonly name: string; readonly parts: readonly string[] }[];
  readonly same: number;
  readonly faults: readonly RowFault[];
  /** Names the state that it was worked out against: an import must name it, and is refused when that has changed. */
  readonly basis: number;
  readonly applied: boolean;
}
