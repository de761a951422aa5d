import { CLAMP_IDS, type ClampId, type Rescue, type Terminal } from '../circuit/rescue.js';
import type { CasualtyBlocks } from '../crank/casualty-blocks.js';
import { terminalOf } from '../crank/clamp-points.js';
import { hasLooseLeads, hasSwitch, type SourceOption } from '../crank/options.js';
import type { Machine } from '../machine/machine.js';

/** Stands for a pack's own post, where its fixed lead begins. */
export const PACK_END = 'pack';
/** The posts of spare blocks, where loose leads bite. */
export const SPARE_POSTS = { plus: 'spare-plus', minus: 'spare-minus' } as const;

/** What hands have done so far: where each clamp bites, and what runs. */
export interface HookupState {
  /** Point id on the clamp's own machine; null = free. */
  readonly clamps: Readonly<Record<ClampId, string | null>>;
  /** Clamps in the order they went on. */
  readonly attachedInOrder: readonly ClampId[];
  readonly donorRunning: boolean;
  readonly packOn: boolean;
  /** A mains charger's plug is in its socket. */
  readonly pluggedIn: boolean;
  /** Steps that leave no trace in the circuit, such as a look or a wait. */
  readonly confirmed: readonly string[];
}

export const NOTHING_CONNECTED: HookupState = {
  clamps: { redCasualty: null, redSource: null, blackSource: null, blackCasualty: null },
  attachedInOrder: [],
  donorRunning: false,
  packOn: false,
  pluggedIn: false,
  confirmed: [],
};

/** A pack's source ends are built in; only its casualty ends are clamps. */
export function clampsInHand(option: Pick<SourceOption, 'leadSetId'>): readonly ClampId[] {
  return hasLooseLeads(option) ? CLAMP_IDS : ['redCasualty', 'blackCasualty'];
}

/** Everything the circuit of a hook-up is made from. */
export interface HookupScene {
  readonly machine: Machine;
  readonly option: SourceOption;
  readonly blocks: CasualtyBlocks;
  readonly tempC: number;
  readonly enclosed: boolean;
  /** The casualty's engine runs and charges (or its converter has taken over). */
  readonly casualtyRuns: boolean;
}

/** A running casualty's alternator, per 12 V of system. */
const CASUALTY_ALTERNATOR = { voltsPer12: 14.2, maxAmps: 60 };

/** The circuit as the clamps stand now. */
export function rescueOf(scene: HookupScene, state: HookupState): Rescue {
  const { machine, option, blocks, tempC } = scene;
  const isLoose = hasLooseLeads(option);
  const casualtyEnd = (clamp: 'redCasualty' | 'blackCasualty'): Terminal | null => {
    const pointId = state.clamps[clamp];
    return pointId === null ? null : terminalOf(machine, pointId);
  };
  // A source end bites the source's own pole; the model needs only whether it bites.
  const sourceEnd = (clamp: 'redSource' | 'blackSource'): Terminal | null =>
    !isLoose || state.clamps[clamp] !== null ? { kind: 'body' } : null;
  const { alternator, ...still } = option.source;
  const isOn =
    !hasSwitch(option) || (state.packOn && (option.sourceKind !== 'mains-charger' || state.pluggedIn));
  // A donor's alternator needs its engine; a charger's regulator works whenever it is on.
  const regulates = option.sourceKind === 'donor' ? state.donorRunning : isOn;
  return {
    casualty: blocks.models,
    load: { kind: 'none' },
    leads: option.leads,
    tempC,
    source: regulates && alternator ? { ...still, alternator } : still,
    sourceOn: isOn,
    ...(scene.casualtyRuns && {
      casualtyAlternator: {
        volts: (CASUALTY_ALTERNATOR.voltsPer12 * machine.systemVolts) / 12,
        maxAmps: CASUALTY_ALTERNATOR.maxAmps,
      },
    }),
    clamps: {
      redCasualty: casualtyEnd('redCasualty'),
      blackCasualty: casualtyEnd('blackCasualty'),
      redSource: sourceEnd('redSource'),
      blackSource: sourceEnd('blackSource'),
    },
  };
}

/** True while any clamp in hand bites something. */
export function anyClampOn(state: HookupState): boolean {
  return CLAMP_IDS.some((clamp) => state.clamps[clamp] !== null);
}
