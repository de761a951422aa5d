import type { HookupAction } from '@voltrek/core';
import type { Reporter } from './state/reporter';

/** Reports that hands have done this. */
export function reportAction(reporter: Reporter, action: HookupAction): void {
  switch (action.kind) {
    case 'attach':
      return reporter.report('clamp.attached', { clamp: action.clamp, pointId: action.pointId });
    case 'detach':
      return reporter.report('clamp.detached', { clamp: action.clamp });
    case 'donor-engine':
      return reporter.report('donor.switched', { running: action.running });
    case 'pack':
      return reporter.report('pack.switched', { on: action.on });
    case 'confirm':
      return reporter.report('step.confirmed', { step: action.what });
  }
}
