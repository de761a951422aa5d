import type { RollStep } from '@voltrek/core/machine';

/** Each step of a rolling start as an order, and what to mind there. */
export const ROLL_STEP_WORDS: Record<RollStep, { readonly act: string; readonly why: string }> = {
  'clear-run': {
    act: 'Look along the run-out: clear, straight, long',
    why: 'Room to stop twice over, on the handbrake.',
  },
  'nobody-before': {
    act: 'Nobody before it, helpers at its tail',
    why: 'Hands on body, not on glass; out of the way of doors.',
  },
  pushers: { act: 'Two push from the corners', why: 'Shoes that grip; all let go at the word.' },
  'key-on': { act: 'Key on, steering lock off', why: 'A lock that snaps in takes the wheel away.' },
  'brakes-heavy': {
    act: 'Try brake and wheel before it moves',
    why: 'Both are heavy until it runs: the servo has one push left.',
  },
  'second-gear': {
    act: 'Second gear, clutch down',
    why: 'First locks the wheels, third turns it too slowly.',
  },
  rolling: { act: 'Let it roll to a quick walk', why: 'Slower turns the engine too little.' },
  'clutch-up': {
    act: 'Clutch up at once, down again as it fires',
    why: 'A touch of throttle keeps it alive.',
  },
  'few-times': { act: 'Twice at most', why: 'Unburnt petrol ruins the catalyst.' },
  'keep-running': { act: 'Out of gear, brake on, keep it running', why: 'Its battery is as flat as before.' },
};

/** After a rolling start in vain. */
export const ROLLED_IN_VAIN =
  'Turned by its wheels it did not catch: too slow, or fuel and spark. Plan has the other ways.';
