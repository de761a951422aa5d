import type { HookupAction } from '../hookup/index.js';
import type { EventEntry, JobEvent } from './events/event.js';

/** The events that report an act of the hands at the clamps. */
export type HandEvent = Extract<
  JobEvent,
  {
    type:
      | 'step.confirmed'
      | 'clamp.attached'
      | 'clamp.detached'
      | 'donor.switched'
      | 'pack.switched'
      | 'plug.moved'
      | 'circumstance.noted';
  }
>;

/** The physical act that a hook-up event reports. */
export function actionOf(event: HandEvent): HookupAction {
  switch (event.type) {
    case 'step.confirmed':
      return { kind: 'confirm', what: event.data.step };
    case 'clamp.attached':
      return { kind: 'attach', ...event.data };
    case 'clamp.detached':
      return { kind: 'detach', ...event.data };
    case 'donor.switched':
      return { kind: 'donor-engine', ...event.data };
    case 'pack.switched':
      return { kind: 'pack', ...event.data };
    case 'plug.moved':
      return { kind: 'plug', ...event.data };
    case 'circumstance.noted':
      return { kind: 'circumstance', ...event.data };
  }
}

/** The event that reports a physical act: the way back from `actionOf`. */
export function entryOf(action: HookupAction): EventEntry {
  switch (action.kind) {
    case 'attach':
      return [
        'clamp.attached',
        {
          clamp: action.clamp,
          pointId: action.pointId,
          ...(action.onto && { onto: action.onto }),
        },
      ];
    case 'detach':
      return ['clamp.detached', { clamp: action.clamp }];
    case 'donor-engine':
      return ['donor.switched', { running: action.running }];
    case 'pack':
      return ['pack.switched', { on: action.on }];
    case 'plug':
      return ['plug.moved', { in: action.in }];
    case 'circumstance':
      return ['circumstance.noted', { what: action.what, on: action.on }];
    case 'confirm':
      return ['step.confirmed', { step: action.what }];
  }
}
