import type { CalcInput, CalcOutput } from '@voltrek/contracts/calc';
import {
  diagnose,
  type DiagnosisEvidence,
  drawCrowd,
  isFindingOf,
  probeOf,
  proposals,
  TOOLS,
} from '@voltrek/core';

/** Proposals told: those after these hardly matter. */
const TOLD = 8;

/** Evidence in, suspects and the checks worth doing next out. @throws RangeError for a finding its probe cannot have */
export function diagnoseInput(input: CalcInput<'diagnose'>): CalcOutput<'diagnose'> {
  const { machineClass, systemVolts, engine, rating, tempC, tools } = input;
  const evidence = input.evidence.map(({ probe, found }, i): DiagnosisEvidence => {
    if (isFindingOf(probe, found)) return { probe, found };
    const { outcomes, edges } = probeOf(probe);
    throw new RangeError(
      `evidence[${i}].found: ${probe} finds ${outcomes.join(', ')}${edges ? ', or a figure' : ''}`,
    );
  });
  const crowd = drawCrowd({
    machineClass,
    systemVolts: systemVolts === 24 ? 24 : 12,
    engine: engine ? { ...engine, systemVolts: engine.systemVolts === 24 ? 24 : 12 } : null,
    rating,
    tempC,
  });
  return {
    suspicions: diagnose(crowd, evidence).map(({ cause, share, pushes }) => ({
      cause,
      share,
      pushes: [...pushes],
    })),
    proposals: proposals(crowd, evidence, tools ?? TOOLS)
      .slice(0, TOLD)
      .map(({ probe, gainBits, minutes, worth }) => ({ probe, gainBits, minutes, worth })),
  };
}
