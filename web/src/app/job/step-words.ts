import { withinSentence } from '@words/numbers';
import { type ClampId, isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import { type HookupAction, type HookupState, SPARE_POSTS } from '@voltrek/core/hookup';
import type { Machine, MachinePoint } from '@voltrek/core/machine';
import type { SourceKind } from '@voltrek/core/sources';
import { confirmWords } from '@words/earth-words';
import { CIRCUMSTANCE_WORDS } from '@words/words';
import type { PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { messagesOf } from '@words/messages-of';
import { STEP_WORDS as T } from '@words/screens/job';

/** The point of a clamp, now or planned, from the atlas entry of the vehicle at its end. */
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
      return T.on({
        colour: isRedClamp(action.clamp) ? T.red : T.black,
        side: sideWord(action.clamp, rescue),
        point: placeWord(point, action.pointId),
      });
    }
    case 'detach': {
      const pointId = hookup?.clamps[action.clamp];
      const point = pointId ? pointFor(work, action.clamp, pointId) : null;
      return T.off({
        colour: isRedClamp(action.clamp) ? T.red : T.black,
        side: sideWord(action.clamp, rescue),
        point: placeWord(point, pointId ?? null),
      });
    }
    case 'donor-engine':
      return action.running ? T.donorStart : T.stopTheDonor;
    case 'pack':
      if (rescue?.option.sourceKind === 'hobby-lithium') return action.on ? T.cellsIn : T.cellsOut;
      return action.on ? T.switchTheOn({ sourceName }) : T.switchTheOff({ sourceName });
    case 'plug':
      return action.in ? T.chargerIn : T.chargerOut;
    case 'circumstance':
      return `${action.on ? T.noted : T.noLonger}: ${CIRCUMSTANCE_WORDS[action.what]}`;
    case 'confirm':
      return confirmWords(action.what, work?.machine ?? null).title;
  }
}

/** The name of a source in an order. */
const SOURCE_NAMES: Record<SourceKind, string> = messagesOf('sourceInOrder');

/** The side of a lead's end. */
export function sideWord(clamp: ClampId, rescue: PlannedRescue | null): string {
  return isSourceClamp(clamp) ? SOURCE_NAMES[rescue?.option.sourceKind ?? 'donor'] : T.casualty;
}

function placeWord(point: MachinePoint | null, pointId: string | null): string {
  if (pointId === SPARE_POSTS.plus) return '+';
  if (pointId === SPARE_POSTS.minus) return '-';
  switch (point?.kind) {
    case 'red-post':
      return T.redPost;
    case 'starter-stud':
      return T.starterStud;
    case 'ground-point':
      return T.groundPoint;
    case 'battery-positive':
      return `${labelWord(point)}+`;
    case 'battery-negative':
      return `${labelWord(point)}-`;
    default:
      return T.side;
  }
}

/** Batteries of a string are distinguished by the label the atlas gives them, less its sign. */
function labelWord({ label }: MachinePoint): string {
  const name = label.replace(/ ?[+-]$/, '');
  return `${withinSentence(name)} `;
}

/** The label on the button that confirms it. */
export function actionDone(
  action: HookupAction,
  machine: Machine,
  sourceKind: SourceKind | null = null,
): string {
  switch (action.kind) {
    case 'attach':
      return T.clampIsOn({ colour: isRedClamp(action.clamp) ? T.red : T.black });
    case 'detach':
      return T.clampIsOff({ colour: isRedClamp(action.clamp) ? T.red : T.black });
    case 'donor-engine':
      return action.running ? T.donorRuns : T.donorStopped;
    case 'pack':
      if (sourceKind === 'hobby-lithium') return action.on ? T.pluggedIn : T.unplugged;
      return action.on ? T.itIsOn : T.itIsOff;
    case 'plug':
      return action.in ? T.pluggedIn : T.unplugged;
    case 'circumstance':
      return T.thatIsSo;
    case 'confirm':
      return confirmWords(action.what, machine).go;
  }
}

/** Each step distinct from the next, even with one name. */
export const stepKey = ({ action }: { readonly action: HookupAction }): string => JSON.stringify(action);
