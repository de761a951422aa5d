import { findingOf, measuresFor } from '@voltrek/core/diagnosis';
import type { EventEntry, ReadingSource } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import type { TraceRead } from '../../../workers/trace-read';
import type { Work } from '../../../shared/job/job-selectors';

const rounded = (value: number): number => Math.round(value * 1000) / 1000;

/** The readings and findings that a trace gives a job, ready to be reported. */
export function takesOf(
  { findings, strength }: TraceRead,
  { machine, situation }: Pick<Work, 'machine' | 'situation'>,
  source: ReadingSource,
): EventEntry[] {
  const { restVolts, keyOnDropVolts, crank, recovery, charging } = findings;
  const { tempC } = situation;
  const { rating } = machine.batteries[0]!;
  const context = { rating, systemVolts: machine.systemVolts, tempC, restVolts };
  const kindOf = (id: string) => measuresFor(rating, !startsByWaking(machine)).find((m) => m.id === id);

  const reading = (kind: 'rest' | 'crank-minimum' | 'charging-idle', value: number): EventEntry => [
    'reading.taken',
    {
      kind,
      volts: rounded(value),
      battery: 0,
      tempC,
      source,
      ...(kind === 'crank-minimum' &&
        strength && { strength: { share: strength.share, low: strength.low, high: strength.high } }),
    },
  ];
  const finding = (id: 'key-on' | 'recovery', value: number): EventEntry[] => {
    const kind = kindOf(id);
    const found = kind && findingOf(kind, [value], context);
    return kind && found != null
      ? [['finding.recorded', { check: kind.check, found, source, figures: [rounded(value)] }]]
      : [];
  };
  // The rest volts of a string say nothing of each battery.
  const isOne = machine.batteries.length === 1;
  return [
    ...(restVolts !== null && isOne ? [reading('rest', restVolts)] : []),
    ...(keyOnDropVolts !== null && restVolts !== null ? finding('key-on', restVolts - keyOnDropVolts) : []),
    ...(crank && kindOf('crank-minimum') ? [reading('crank-minimum', crank.minimumVolts)] : []),
    ...(recovery ? finding('recovery', recovery.volts) : []),
    ...(charging ? [reading('charging-idle', charging.volts)] : []),
  ];
}
