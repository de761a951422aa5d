import type { Stage } from '@voltrek/core/job';

export const STAGE_WORDS: Record<Stage, string> = {
  scene: 'Scene',
  checks: 'Checks',
  locate: 'Locate',
  measure: 'Measure',
  plan: 'Plan',
  hookup: 'Hook up',
  crank: 'Crank',
  cleardown: 'Clear down',
  verdict: 'Verdict',
};
