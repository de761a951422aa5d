import type { ChangeKind, Confidence } from '@voltrek/contracts';
import type { KitNeed, RestReason } from '@voltrek/core/job';
import type { TerminalLayout, ZoneKind } from '@voltrek/core/machine';
import type { Clue } from '@voltrek/core/template';
import type { Arrangement } from '@voltrek/core/reach';

export const CONFIDENCE_WORDS: Record<Confidence, string> = {
  maker: "from the maker's papers",
  'found-once': 'found by one of us, not yet seen again',
  confirmed: 'found by one, confirmed by another',
};
/** The same as a mark, where there is no room for a sentence. */
export const CONFIDENCE_MARKS: Record<Confidence, string> = {
  maker: '',
  'found-once': 'found once',
  confirmed: 'confirmed',
};

export const CHANGE_WORDS: Record<ChangeKind, string> = {
  loaded: 'came with the atlas',
  added: 'added',
  corrected: 'corrected',
  confirmed: 'confirmed',
  photo: 'photo added',
  imported: 'imported',
};

export const ZONE_WORDS: Record<ZoneKind, string> = { hot: 'hot', moving: 'moves' };

export const LAYOUT_WORDS: Record<TerminalLayout, string> = {
  'positive-left': '+ on the left',
  'positive-right': '+ on the right',
};

export const CLUE_WORDS: Record<Clue, string> = {
  'battery-in-view': 'battery is in view',
  'bay-empty': 'bay has no battery',
  'red-post-in-bay': 'red post in the bay',
  'vent-hose': 'hose through floor or sill',
  'side-box': 'box with latches',
  'seat-lifts': 'seat lifts or tips',
  'floor-hatch': 'hatch in the floor',
  'arch-screws': 'arch liner with screws',
};

export const ARRANGEMENT_WORDS: Record<Arrangement, string> = {
  'nose-to-nose': 'Nose to nose',
  'left-side': 'Beside, left',
  'right-side': 'Beside, right',
  'nose-in-left': 'Nose in, left',
  'nose-in-right': 'Nose in, right',
  behind: 'Behind',
};

export const NEED_WORDS: Record<KitNeed, string> = {
  recharge: 'recharge',
  clean: 'wipe the jaws, look at them',
};

export const REST_WORDS: Record<RestReason, string> = {
  rule: 'house rule',
  leads: 'the leads are hot',
  starter: 'the starter is hot',
};
