import { type ClampId, isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import { type HookupAction, type HookupState, SPARE_POSTS } from '@voltrek/core/hookup';
import type { Machine, MachinePoint } from '@voltrek/core/machine';
import type { SourceKind } from '@voltrek/core/plan';
import { confirmWords } from '../shared/words/earth-words';
import { CIRCUMSTANCE_WORDS } from '../shared/words/words';
import type { PlannedRescue, Work } from '../shared/job/job-selectors';

/** The point that a clamp is on or will go on, from the atlas entry of the vehicle at its end. */
export function pointFor(work: Work | null, clamp: ClampId, pointId: string): MachinePoint | null {
  const machine = isSourceClamp(clamp) ? work?.donorMachine : work?.machine;
  return machine?.points.find((p) => p.id === pointId) ?? null;
}

/** A hook-up action as an order, short and in the imperative. */
export function actionTitle(
  action: HookupAction,
  work: Work | null,
  rescue: PlannedRescue | null,
  hookup: HookupState | null,
): string {
  const sourceName = SOURCE_NAMES[rescue?.option.sourceKind ?? 'lithium-pack'];
  switch (action.kind) {
    case 'attach': {
      const point = pointFor(work, action.clamp, action.pointId);
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} on ${sideWord(action.clamp, rescue)} ${placeWord(point, action.pointId)}`;
    }
    case 'detach': {
      const pointId = hookup?.clamps[action.clamp];
      const point = pointId ? pointFor(work, action.clamp, pointId) : null;
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} off ${sideWord(action.clamp, rescue)} ${placeWord(point, pointId ?? null)}`;
    }
    case 'donor-engine':
      return action.running ? 'Start the donor' : 'Stop the donor';
    case 'pack':
      return action.on ? `Switch the ${sourceName} on` : `Switch the ${sourceName} off`;
    case 'plug':
      return action.in ? 'Plug the charger in' : 'Unplug the charger';
    case 'circumstance':
      return `${action.on ? 'Noted' : 'No longer'}: ${CIRCUMSTANCE_WORDS[action.what]}`;
    case 'confirm':
      return confirmWords(action.what, work?.machine ?? null).title;
  }
}

/** What a source is called in an order. */
const SOURCE_NAMES: Record<SourceKind, string> = {
  donor: 'donor',
  'lithium-pack': 'pack',
  'lead-pack': 'pack',
  'capacitor-booster': 'booster',
  'spare-batteries': 'spare battery',
  'mains-charger': 'charger',
  'hobby-lithium': 'hobby pack',
};

/** Whose end of a lead it is. */
export function sideWord(clamp: ClampId, rescue: PlannedRescue | null): string {
  return isSourceClamp(clamp) ? SOURCE_NAMES[rescue?.option.sourceKind ?? 'donor'] : 'casualty';
}

function placeWord(point: MachinePoint | null, pointId: string | null): string {
  if (pointId === SPARE_POSTS.plus) return '+';
  if (pointId === SPARE_POSTS.minus) return '-';
  switch (point?.kind) {
    case 'red-post':
      return 'red post';
    case 'ground-point':
      return 'ground point';
    case 'battery-positive':
      return `${labelWord(point)}+`;
    case 'battery-negative':
      return `${labelWord(point)}-`;
    default:
      return 'side';
  }
}

/** Batteries of a string are told apart by the label the atlas gives them, less its sign. */
function labelWord({ label }: MachinePoint): string {
  const name = label.replace(/ ?[+-]$/, '');
  return `${name.charAt(0).toLowerCase()}${name.slice(1)} `;
}

/** The label on the button that confirms it. */
export function actionDone(action: HookupAction, machine: Machine): string {
  switch (action.kind) {
    case 'attach':
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} clamp is on`;
    case 'detach':
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} clamp is off`;
    case 'donor-engine':
      return action.running ? 'Donor runs' : 'Donor is stopped';
    case 'pack':
      return action.on ? 'It is on' : 'It is off';
    case 'plug':
      return action.in ? 'It is plugged in' : 'It is unplugged';
    case 'circumstance':
      return 'That is so';
    case 'confirm':
      return confirmWords(action.what, machine).go;
  }
}

/** One step told from the next, whatever both are called. */
export const stepKey = ({ action }: { readonly action: HookupAction }): string => JSON.stringify(action);
