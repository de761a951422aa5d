import type { EventType } from '@voltrek/core';

/** What each kind of event is called when it is spoken of. */
export const EVENT_WORDS: Record<EventType, string> = {
  'job.opened': 'open the job',
  'stage.opened': 'open the stage',
  'scene.recorded': 'scene',
  'stop.raised': 'raise a stop',
  'stop.withdrawn': 'withdraw a stop',
  'check.recorded': 'check',
  'symptom.recorded': 'symptom',
  'polarity.proved': 'positive proved',
  'reading.taken': 'take a reading',
  'plan.chosen': 'choose a source',
  'step.confirmed': 'confirm a step',
  'clamp.attached': 'clamp on',
  'clamp.detached': 'clamp off',
  'donor.switched': 'donor engine',
  'pack.switched': 'pack switch',
  'plug.moved': 'mains plug',
  'attempt.started': 'start a try',
  'attempt.ended': 'end the try',
  'reset.ticked': 'reset',
  'override.given': 'override',
  'verdict.given': 'give the verdict',
  'job.closed': 'close the job',
  'event.undone': 'undo',
};
