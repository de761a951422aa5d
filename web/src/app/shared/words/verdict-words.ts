import type { Suspect } from '@voltrek/core/diagnosis';
import type { Certainty, VerdictKind } from '@voltrek/core/verdict';

export const VERDICT_WORDS: Record<VerdictKind, { readonly name: string; readonly means: string }> = {
  keep: { name: 'Keep', means: 'Serviceable. Charge to full.' },
  'charge-first': { name: 'Charge first', means: 'Charge it, rest it, then judge.' },
  'replace-soon': { name: 'Replace soon', means: 'Near its end. It will leave somebody standing again.' },
  'replace-now': { name: 'Replace now', means: 'Done. It cannot be trusted to the next start.' },
  'not-the-battery': { name: 'Not the battery', means: 'The fault is elsewhere.' },
  repaired: { name: 'Repaired', means: 'The fault was mended on the spot, and it held.' },
  'not-known': { name: 'Not known yet', means: 'One more finding would decide.' },
  unsafe: { name: 'Unsafe', means: 'Stopped. Nothing was or will be connected.' },
};

export const SUSPECT_WORDS: Record<Suspect, string> = {
  joint: 'joint',
  cable: 'cable or body strap',
  charging: 'charging',
  belt: 'drive belt',
  drain: 'parked drain',
  starter: 'starter',
  interlock: 'interlock or switch',
  'fuel-or-engine': 'fuel or engine',
  'traction-battery': 'traction battery',
};

export const CERTAINTY_WORDS: Record<Certainty, string> = {
  sure: 'Sure',
  'fairly-sure': 'Fairly sure',
  unsure: 'Not sure yet',
};
