import { factorOver, type LeadSet, type LeadUse } from '../../leads/index.js';
import type { KitKind } from '../kit-kind.js';

export interface LeadSetKit {
  readonly kind: 'lead-set';
  readonly id: string;
  readonly name: string;
  readonly leads: LeadSet;
  /** Uses that measured it, oldest first; left out where none has. */
  readonly uses?: readonly LeadUse[];
}

/** A set as the circuit sees it: as its uses have measured it. */
export function leadsOf({ leads, uses = [] }: Pick<LeadSetKit, 'leads' | 'uses'>): LeadSet {
  const measured = factorOver(uses);
  return measured ? { ...leads, ohmsFactor: measured.factor } : leads;
}

export const leadSet = { charge: null, lends: null } satisfies KitKind<LeadSetKit>;
