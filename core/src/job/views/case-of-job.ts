import { type Machine, startsByWaking } from '../../machine/index.js';
import type { Case } from '../../verdict/index.js';
import { withoutDoubts } from './doubts.js';
import type { Job } from '../job.js';
import { coldestTempC, machineAsFound, restVoltsByBattery, workingTempC } from './queries.js';
import { stopsInForce } from '../situation.js';

/**
 * Returns the facts that a verdict needs beside the evidence. They are of the batteries that were found, not of those that were fitted since.
 *
 * @param entry its entry of the atlas
 */
export function caseOfJob(job: Job, entry: Machine, earlierFlatCalls: number): Case {
  const machine = machineAsFound(job, entry);
  const accepted = withoutDoubts(job, machine);
  return {
    chemistry: machine.batteries[0]!.rating.chemistry,
    wakes: startsByWaking(machine),
    tempC: workingTempC(job),
    coldestC: coldestTempC(job),
    stops: stopsInForce(job, entry),
    restVolts: restVoltsByBattery(accepted, machine.batteries.length),
    earlierFlatCalls,
    diedInService: job.symptoms.includes('no-doors'),
  };
}
