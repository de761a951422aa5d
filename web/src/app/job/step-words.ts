import {
  type ClampId,
  type HookupAction,
  type HookupState,
  isRedClamp,
  isSourceClamp,
  type MachinePoint,
} from '@voltrek/core';
import { CONFIRM_WORDS } from '../shared/words/words';
import type { PlannedRescue, Work } from './state/job-selectors';

/** The point that a clamp bites or will bite, from the atlas entry of the vehicle at its end. */
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
  const sourceName = rescue?.option.sourceKind === 'capacitor-booster' ? 'booster' : 'pack';
  switch (action.kind) {
    case 'attach': {
      const point = pointFor(work, action.clamp, action.pointId);
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} on ${sideWord(action.clamp)} ${placeWord(point)}`;
    }
    case 'detach': {
      const pointId = hookup?.clamps[action.clamp];
      const point = pointId ? pointFor(work, action.clamp, pointId) : null;
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} off ${sideWord(action.clamp)} ${placeWord(point)}`;
    }
    case 'donor-engine':
      return action.running ? 'Start the donor' : 'Stop the donor';
    case 'pack':
      return action.on ? `Switch the ${sourceName} on` : `Switch the ${sourceName} off`;
    case 'confirm':
      return CONFIRM_WORDS[action.what].title;
  }
}

function sideWord(clamp: ClampId): string {
  return isSourceClamp(clamp) ? 'donor' : 'casualty';
}

function placeWord(point: MachinePoint | null): string {
  switch (point?.kind) {
    case 'red-post':
      return 'red post';
    case 'ground-point':
      return 'ground point';
    case 'block-positive':
      return `${blockWord(point)}+`;
    case 'block-negative':
      return `${blockWord(point)}-`;
    default:
      return 'side';
  }
}

/** Blocks of a string are told apart by the label the atlas gives them. */
function blockWord({ label, block }: MachinePoint): string {
  return block === undefined || label.startsWith('Block')
    ? 'block '
    : `${label.replace(/ [+-]$/, '').toLowerCase()} `;
}

/** The label on the button that confirms it. */
export function actionDone(action: HookupAction): string {
  switch (action.kind) {
    case 'attach':
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} clamp is on`;
    case 'detach':
      return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} clamp is off`;
    case 'donor-engine':
      return action.running ? 'Donor runs' : 'Donor is stopped';
    case 'pack':
      return action.on ? 'It is on' : 'It is off';
    case 'confirm':
      return CONFIRM_WORDS[action.what].go;
  }
}
