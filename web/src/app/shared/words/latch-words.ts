import type { LatchPlace, LatchStep } from '@voltrek/core/reach';

/** The places at which a machine that does not open may be opened, and how one finds each. */
export const LATCH_PLACE_WORDS: Record<LatchPlace, { readonly name: string; readonly how: string }> = {
  'key-blade': {
    name: 'Key blade, driver’s door',
    how: 'A hidden lock: behind a cap or under the pull of the handle.',
  },
  'known-wires': { name: 'The latch wires of this model', how: 'Where the points of this page say.' },
  'tow-eye-cover': {
    name: 'Behind the tow-eye cover',
    how: 'Round or square lid in the bumper: press one edge in, look for two capped wires.',
  },
  grille: {
    name: 'Behind the grille',
    how: 'Lamp through the slats: two studs or a capped pair near the catch.',
  },
  'arch-liner': {
    name: 'Behind the front arch liner',
    how: 'Two or three clips off, wheel turned away: a pull cord, or a capped pair.',
  },
};

/** The acts there, step by step. */
export const LATCH_STEP_WORDS: Record<LatchStep, { readonly act: string; readonly why: string }> = {
  'blade-out': { act: 'Slide the blade out of the key', why: 'It needs no power at all: try it first.' },
  'blade-in-lock': {
    act: 'Cap off with the blade, blade into the lock',
    why: 'Lay the cap where it is found again.',
  },
  'pull-handle': { act: 'Turn, and pull the handle', why: 'The alarm may sound once power is back.' },
  'cover-off': {
    act: 'Cover off, by hand or a flat blade',
    why: 'Clips break in the cold: one edge at a time.',
  },
  'wires-out': {
    act: 'Pull the pair out as far as it comes',
    why: 'They end under the bumper: nothing else is pulled.',
  },
  'meter-wires': {
    act: 'Meter across the pair: near 0 V',
    why: 'More than that, and they are no latch wires: leave them.',
  },
  'black-on': { act: 'Black of the small source on the black wire', why: 'One contact, nothing flows yet.' },
  'red-touches': {
    act: 'Touch red to the red wire, no longer than it takes',
    why: 'The latch clicks at once, or not at all.',
  },
  'bonnet-up': { act: 'Bonnet up, and prop it', why: 'It may need a pull at the edge while red touches.' },
  'red-off-first': { act: 'Red off, then black', why: 'The latch must not stay held.' },
  'wires-back': { act: 'Caps on, wires back, cover on', why: 'Whoever comes next finds them dry.' },
};
