import type { CalcInput, CalcOutput } from '@voltrek/contracts/calc';
import { FAULTS, hazardLine } from '@voltrek/contracts/words';
import { coldestOf } from '@voltrek/core/battery';
import {
  actByHand,
  clearingOrder,
  type HandAction,
  hazardsOf,
  type HookupScene,
  type HookupState,
  type HookupStep,
  makeSafe,
  NOTHING_CONNECTED,
  safestOrder,
} from '@voltrek/core/hookup';
import { dataFaults, type Machine } from '@voltrek/core/machine';
import { casualtyBatteries } from '@voltrek/core/belief';
import { DEFAULT_RULES, type HouseRules } from '@voltrek/core/rules';

type SceneInput = Omit<CalcInput<'makesafe'>, 'actions'>;
type Steps = CalcOutput<'check'>['steps'];

/** A machine of the command line with what only a drawing needs left empty. */
function machineOf(input: SceneInput['machine'], id: string): Machine {
  const { machineClass, systemVolts, earth, engine, batteries, points } = input;
  const machine: Machine = {
    id,
    maker: '',
    model: '',
    machineClass,
    gearbox: 'none',
    systemVolts: systemVolts === 24 ? 24 : 12,
    ...(earth === 'positive' && { earth }),
    lengthMm: 0,
    widthMm: 0,
    outline: [],
    glass: [],
    wheels: [],
    side: null,
    zones: [],
    resets: [],
    cautions: [],
    never: [],
    smartAlternator: false,
    engine: engine && { ...engine, systemVolts: engine.systemVolts === 24 ? 24 : 12 },
    batteries: batteries.map(({ rating, rect, closedIn }) => ({
      rating,
      rect,
      place: '',
      layout: 'positive-left',
      topMm: 0,
      closedIn: closedIn ?? false,
      ventHose: false,
    })),
    points: points.map(({ battery, ...point }) => ({
      ...point,
      label: point.id,
      steps: [],
      ...(battery != null && { battery }),
    })),
  };
  // No maker builds a mixed string, and the road has them.
  const fault = dataFaults(machine).find(({ code }) => code !== 'string-mixed');
  if (fault) throw new RangeError(`machine.${fault.path}: ${FAULTS[fault.code]}`);
  return machine;
}

function sceneOf(input: SceneInput): HookupScene {
  const machine = machineOf(input.machine, 'casualty');
  const { option, restVolts, tempC, coldestC } = input;
  if (restVolts.length !== machine.batteries.length)
    throw new RangeError(`restVolts: give one for each of the ${machine.batteries.length} batteries`);
  if (option.sourceKind === 'donor' && !input.donor)
    throw new RangeError('donor: a donor option needs the donor machine');
  const { acrossBattery } = option;
  return {
    machine,
    donor: input.donor ? machineOf(input.donor, 'donor') : null,
    batteries: casualtyBatteries(machine, restVolts, tempC, coldestOf(tempC, coldestC)),
    tempC,
    enclosed: input.enclosed ?? false,
    casualtyRuns: input.casualtyRuns ?? false,
    option: {
      id: 'option',
      sourceId: 'source',
      leadSetId: option.looseLeads ? 'leads' : null,
      sourceKind: option.sourceKind,
      outputVolts: option.outputVolts,
      leads: option.leads,
      donorRuns: option.donorRuns ?? false,
      chargeOnly: option.chargeOnly ?? false,
      across: acrossBattery == null ? { kind: 'whole' } : { kind: 'battery', battery: acrossBattery },
      source: {
        openVolts: option.source.openVolts,
        ohms: option.source.ohms,
        polarises: option.source.polarises ?? false,
        ...(option.source.alternator && { alternator: option.source.alternator }),
        ...(option.source.capacitor && { capacitor: option.source.capacitor }),
      },
    },
  };
}

function rulesOf({ rules }: SceneInput): HouseRules {
  const given = Object.fromEntries(Object.entries(rules ?? {}).filter(([, value]) => value != null));
  return { ...DEFAULT_RULES, ...given };
}

interface PlannedStep {
  readonly action: HandAction;
  readonly reason?: string;
  readonly minutes?: number;
}

/** Each step with the hazards it brings in the state that the steps before it leave. */
function withHazards(
  scene: HookupScene,
  steps: readonly PlannedStep[],
  rules: HouseRules,
  from: HookupState,
): Steps {
  let state = from;
  return steps.map(({ action, reason, minutes }) => {
    const hazards = hazardsOf(scene, state, action, rules).map((h) => ({ ...h, says: hazardLine(h) }));
    state = actByHand(state, action, scene.machine);
    return { action, ...(reason && { reason }), ...(minutes !== undefined && { minutes }), hazards };
  });
}

const after = (scene: HookupScene, actions: readonly HandAction[]): HookupState =>
  actions.reduce<HookupState>((state, action) => actByHand(state, action, scene.machine), NOTHING_CONNECTED);

/** The safest order for a rescue and the clearing that undoes it. */
export function planHookup(input: CalcInput<'hookup'>): CalcOutput<'hookup'> {
  const scene = sceneOf(input);
  const barred = scene.batteries.beliefs.findIndex((b) => b.bar !== undefined);
  if (barred >= 0)
    throw new RangeError(
      `restVolts: battery ${barred + 1} is ${scene.batteries.beliefs[barred]!.bar!}: nothing is joined to it`,
    );
  const rules = rulesOf(input);
  const order: HookupStep[] = safestOrder(scene, input.waitMinutes ?? 0, rules);
  const running = { ...scene, casualtyRuns: !scene.option.chargeOnly };
  const end = after(
    scene,
    order.map((step) => step.action),
  );
  return {
    steps: withHazards(scene, order, rules, NOTHING_CONNECTED),
    clearing: withHazards(running, clearingOrder(order, scene.machine, rules), rules, end),
  };
}

/** The hazards of a sequence as it was or will be done. */
export function checkActions(input: CalcInput<'check'>): CalcOutput<'check'> {
  const scene = sceneOf(input);
  const steps = actionsOf(input.actions).map((action) => ({ action }));
  return { steps: withHazards(scene, steps, rulesOf(input), NOTHING_CONNECTED) };
}

/** Returns the acts that take everything off after a sequence. */
export function makeSafeAfter(input: CalcInput<'makesafe'>): CalcOutput<'makesafe'> {
  const scene = sceneOf(input);
  const rules = rulesOf(input);
  const state = after(scene, actionsOf(input.actions));
  const steps = makeSafe(scene, state, rules).map((action) => ({ action }));
  return { steps: withHazards(scene, steps, rules, state) };
}

/** The schema has checked each action against the shape of its kind. */
const actionsOf = (actions: readonly object[]): readonly HandAction[] => actions as readonly HandAction[];
