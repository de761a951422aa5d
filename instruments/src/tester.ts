import type { Server } from 'node:net';
import { normal, seededRandom } from '@voltrek/core/quantities';
import { scpiFigure, ScpiError, scpiServer } from './scpi.js';
import { parseSetup, type World, worldOf } from './truth.js';

const NOISE_SHARE = 0.02;
const NOT_CONNECTED = -241;
/** Conductance of a 12 V battery by its cold-cranking amps: the usual rule of thumb, S/A. */
const SIEMENS_PER_AMP = 1.5;

/** A conductance tester: cold-cranking amps by the rating's own standard, and siemens. */
export function testerServer(): Server {
  const random = seededRandom(8);
  let world: World | null = null;
  const amps = (): number => {
    if (!world) throw new ScpiError(NOT_CONNECTED, 'Hardware missing;no battery');
    return Math.round(normal(random, world.strengthShare(), NOISE_SHARE) * world.ratedAmps);
  };
  return scpiServer('Voltrek,Stand-in conductance tester,SIM-3,1.0', {
    '*RST': () => null,
    'MEASure:CCA?': () => scpiFigure(amps()),
    'MEASure:CONDuctance?': () => scpiFigure(amps() * SIEMENS_PER_AMP),
    'SIMulate:SETup': (argument) => {
      world = worldOf(parseSetup(argument));
      return null;
    },
  });
}
