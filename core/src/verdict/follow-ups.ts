import type { DiagnosisEvidence } from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import type { Case } from './case.js';
import type { FollowUp } from './verdict.js';
import type { Ruling } from './rule.js';

/** Returns the dates to keep after a verdict, in days. */
export function followUps(
  { verdict, suspect }: Ruling,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): FollowUp[] {
  const isRead = facts.restVolts.some((v) => v !== null);
  const isShort = evidence.some((e) => e.check === 'ask-use' && e.found === 'short-trips');
  const workshop: FollowUp[] = suspect ? [{ kind: 'workshop', days: 0 }] : [];
  const monthly: FollowUp[] = isShort ? [{ kind: 'charge-monthly', days: rules.chargeMonthlyDays }] : [];
  // An owner who lets it stand for weeks will find it flat again, however sound it is.
  const whileItStands: FollowUp[] = evidence.some((e) => e.check === 'ask-use' && e.found === 'stood-weeks')
    ? [{ kind: 'maintainer', days: 0 }]
    : [];
  switch (verdict) {
    case 'keep':
    case 'repaired':
      return [...monthly, ...whileItStands, { kind: 'inspect', days: rules.inspectDays }];
    case 'charge-first':
      return [
        { kind: 'charge', days: 0 },
        { kind: 'recheck', days: rules.recheckDays },
        ...workshop,
        ...monthly,
        ...whileItStands,
      ];
    case 'replace-soon':
      return [{ kind: 'replace', days: rules.replaceSoonDays }, ...workshop];
    case 'replace-now':
      return [{ kind: 'replace', days: 0 }, ...workshop];
    case 'not-known':
      return [{ kind: 'recheck', days: rules.recheckDays }];
    case 'not-the-battery':
      return [
        { kind: 'workshop', days: 0 },
        ...(isRead ? [{ kind: 'recheck', days: rules.recheckDays } as const] : []),
      ];
    case 'unsafe':
      return [{ kind: 'workshop', days: 0 }];
  }
}
