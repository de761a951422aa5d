import { FAULTS } from '@voltrek/contracts/words';
import type { CalcInput, CalcOutput } from '@voltrek/contracts/calc';
import { coldestOf } from '@voltrek/core/battery';
import {
  type CheckId,
  type Crowd,
  diagnose,
  type DiagnosisEvidence,
  drawCrowd,
  type Found,
  foundFromMeter,
  isFindingOf,
  type MeasureContext,
  checkOf,
  proposals,
  TOOLS,
} from '@voltrek/core/diagnosis';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { conclude, type LedgerLine } from '@voltrek/core/verdict';

/** Most proposals in an answer: those after these hardly matter. */
const PROPOSALS_MOST = 8;

/** Evidence in, suspects and the checks worth doing next out. @throws RangeError for a finding its check cannot have */
export function diagnoseInput(input: CalcInput<'diagnose'>): CalcOutput<'diagnose'> {
  const { crowd, evidence } = weighed(input);
  return {
    suspicions: diagnose(crowd, evidence).map(({ cause, share, pushes }) => ({
      cause,
      share,
      pushes: pushes.map((push) => ({ ...push, found: given(input, push) })),
    })),
    proposals: proposals(crowd, evidence, input.tools ?? TOOLS)
      .slice(0, PROPOSALS_MOST)
      .map(({ settles: _settles, ...proposal }) => proposal),
  };
}

/** The verdict over evidence. @throws RangeError for a finding its check cannot have */
export function verdictInput(input: CalcInput<'verdict'>): CalcOutput<'verdict'> {
  const { crowd, evidence } = weighed(input);
  const restAt = (battery?: number): number | null => {
    const found = evidence.find((e) => e.check === 'rest' && e.battery === battery)?.found;
    return typeof found === 'number' ? found : null;
  };
  const each = Array.from({ length: crowd.profile.systemVolts / 12 }, (_, battery) => restAt(battery));
  const facts = {
    chemistry: input.rating.chemistry,
    wakes: crowd.profile.engine === null,
    tempC: input.tempC,
    coldestC: coldestOf(input.tempC, input.coldestC),
    stops: input.stops ?? [],
    // Read once, it is the weakest's; its fellows were not read.
    restVolts: each.some((v) => v !== null) ? each : each.map((_, i) => (i === 0 ? restAt() : null)),
    earlierFlatCalls: input.earlierFlatCalls ?? 0,
    diedInService: input.diedInService ?? false,
  };
  const record = conclude(crowd, evidence, facts, input.tools ?? TOOLS, DEFAULT_RULES);
  return {
    verdict: record.verdict,
    suspect: record.suspect,
    certainty: record.certainty,
    share: record.share!,
    ground: record.ground!,
    causes: [...record.causes!],
    ledger: asGivenIn(input, record.ledger!),
    deciding: record.deciding ?? null,
    followUps: [...record.followUps],
    ...(record.batteries && {
      batteries: record.batteries.map(({ ledger, ...battery }) => ({
        ...battery,
        ledger: asGivenIn(input, ledger),
      })),
    }),
  };
}

/** The input for a check, in the unit of the input. */
const given = (
  { evidence }: CalcInput<'diagnose'>,
  { check, battery }: Pick<DiagnosisEvidence, 'check' | 'battery'>,
): Found => evidence.find((e) => e.check === check && e.battery === battery)!.found;

const asGivenIn = (input: CalcInput<'diagnose'>, ledger: readonly LedgerLine[]): LedgerLine[] =>
  ledger.map((line) => ({ ...line, found: given(input, line) }));

/** Reads the finding of a check from a word, or from the figure of its instrument. @throws RangeError with its possible findings */
function foundIn(check: CheckId, given: Found, context: MeasureContext): Found {
  if (typeof given === 'number') return foundFromMeter(check, given, context);
  if (isFindingOf(check, given)) return given;
  const range = checkOf(check).shown;
  const figure = range ? `, or a figure from ${range.min} to ${range.max} ${range.unit}` : '';
  throw new RangeError(`${check} finds ${checkOf(check).outcomes.join(', ')}${figure}`);
}

/** @throws RangeError for a starter of other volts than its batteries */
export function requireSameVolts({
  engine,
  systemVolts,
}: Pick<CalcInput<'diagnose'>, 'engine' | 'systemVolts'>): void {
  if (engine && engine.systemVolts !== systemVolts)
    throw new RangeError(`engine.systemVolts: ${FAULTS['engine-does-not-match-volts']}`);
}

/** @throws RangeError for a battery the machine does not have, or a check that is not read at one battery */
function requireBattery(check: CheckId, battery: number | undefined, systemVolts: 12 | 24): void {
  if (battery === undefined) return;
  if (!checkOf(check).isOfBattery) throw new RangeError(`${check} is not read at one battery of a string`);
  if (systemVolts === 12) throw new RangeError('battery is for a string: this machine has one battery');
  if (battery > 1) throw new RangeError('battery must be 0 (the chassis end) or 1');
}

/** The machine's crowd and the evidence, each finding checked against its check. */
function weighed(input: CalcInput<'diagnose'>): { crowd: Crowd; evidence: DiagnosisEvidence[] } {
  const { machineClass, engine, rating, tempC } = input;
  const systemVolts = input.systemVolts === 24 ? 24 : 12;
  requireSameVolts(input);
  const rests = input.evidence.filter((e) => e.check === 'rest').map((e) => Number(e.found));
  const mean = rests.reduce((a, b) => a + b, 0) / rests.length;
  const context: MeasureContext = {
    rating,
    systemVolts,
    tempC,
    // Of the whole string: the weakest was read, and its fellows are taken to be like it.
    restVolts: Number.isNaN(mean) ? null : (mean * systemVolts) / 12,
  };
  const evidence = input.evidence.map(({ check, found, battery }, i): DiagnosisEvidence => {
    try {
      requireBattery(check, battery, systemVolts);
      return { check, found: foundIn(check, found, context), ...(battery !== undefined && { battery }) };
    } catch (error) {
      throw new RangeError(`evidence[${i}].found: ${(error as Error).message}`, { cause: error });
    }
  });
  const crowd = drawCrowd({
    machineClass,
    systemVolts,
    engine: engine ? { ...engine, systemVolts: engine.systemVolts === 24 ? 24 : 12 } : null,
    rating,
    tempC,
  });
  return { crowd, evidence };
}
