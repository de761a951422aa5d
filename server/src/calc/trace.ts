import { readTraceFile } from '@voltrek/contracts';
import type { CalcInput, CalcOutput } from '@voltrek/contracts/calc';
import type { Engine } from '@voltrek/core/engine';
import { analyseTrace, strengthOfTrace } from '@voltrek/core/trace';
import { requireSameVolts } from './diagnose.js';

/** Reads a logger's CSV. @throws TraceFileError with the reason and the line */
export function traceInput(input: CalcInput<'trace'>): CalcOutput<'trace'> {
  const { csv, systemVolts, rating, tempC } = input;
  const volts = systemVolts === 24 ? 24 : 12;
  requireSameVolts(input);
  const engine: Engine | null = input.engine ? { ...input.engine, systemVolts: volts } : null;
  const { recording, timeUnit, cutOff } = readTraceFile(csv);
  const found = analyseTrace(recording, { systemVolts: volts, cylinders: engine?.cylinders ?? null });
  const { crank, restVolts } = found;
  return {
    rows: recording.seconds.length,
    timeUnit,
    cutOff,
    durationSeconds: found.durationSeconds,
    restVolts,
    keyOnDropVolts: found.keyOnDropVolts,
    crank: crank && { ...crank },
    recovery: found.recovery && { ...found.recovery },
    charging: found.charging && { ...found.charging },
    strength: strengthOfTrace(found, rating, engine, tempC),
    notes: [...found.notes],
  };
}
