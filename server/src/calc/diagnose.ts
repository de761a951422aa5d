import type { CalcInput, CalcOutput } from '@voltrek/contracts/calc';
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
  SHOWN_RANGES,
  TOOLS,
} from '@voltrek/core/diagnosis';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { conclude } from '@voltrek/core/verdict';

/** Proposals told: those after these hardly matter. */
const TOLD = 8;

/** Evidence in, suspects and the checks worth doing next out. @throws RangeError for a finding its check cannot have */
export function diagnoseInput(input: CalcInput<'diagnose'>): CalcOutput<'diagnose'> {
  const { crowd, evidence } = weighed(input);
  return {
    suspicions: diagnose(crowd, evidence).map(({ cause, share, pushes }) => ({
      cause,
      share,
      pushes: pushes.map((push) => ({ ...push, found: given(input, push.check) })),
    })),
    proposals: proposals(crowd, evidence, input.tools ?? TOOLS)
      .slice(0, TOLD)
      .map(({ check, gainBits, minutes, worth }) => ({ check, gainBits, minutes, worth })),
  };
}

/** The verdict over evidence. @throws RangeError for a finding its check cannot have */
export function verdictInput(input: CalcInput<'verdict'>): CalcOutput<'verdict'> {
  const { crowd, evidence } = weighed(input);
  const rest = evidence.find((e) => e.check === 'rest')?.found;
  const facts = {
    chemistry: input.rating.chemistry,
    wakes: crowd.profile.engine === null,
    tempC: input.tempC,
    stops: input.stops ?? [],
    restVolts: [typeof rest === 'number' ? rest : null],
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
    ledger: record.ledger!.map((line) => ({ ...line, found: given(input, line.check) })),
    deciding: record.deciding ?? null,
    followUps: [...record.followUps],
  };
}

/** What was put in for a check, in the unit that it was put in. */
const given = ({ evidence }: CalcInput<'diagnose'>, check: CheckId): Found =>
  evidence.find((e) => e.check === check)!.found;

/** What a check finds in a word, or in the figure that its instrument shows. @throws RangeError with what it can find */
function foundIn(check: CheckId, given: Found, context: MeasureContext): Found {
  if (typeof given === 'number') return foundFromMeter(check, given, context);
  if (isFindingOf(check, given)) return given;
  const range = SHOWN_RANGES[check];
  const figure = range ? `, or a figure from ${range.min} to ${range.max} ${range.unit}` : '';
  throw new RangeError(`${check} finds ${checkOf(check).outcomes.join(', ')}${figure}`);
}

/** The machine's crowd and the evidence, each finding checked against its check. */
function weighed(input: CalcInput<'diagnose'>): { crowd: Crowd; evidence: DiagnosisEvidence[] } {
  const { machineClass, engine, rating, tempC } = input;
  const systemVolts = input.systemVolts === 24 ? 24 : 12;
  const { found: rest } = input.evidence.find((e) => e.check === 'rest') ?? {};
  const context: MeasureContext = {
    rating,
    systemVolts,
    tempC,
    // Of the whole string: the weakest was read, and its fellows are taken to be like it.
    restVolts: typeof rest === 'number' ? (rest * systemVolts) / 12 : null,
  };
  const evidence = input.evidence.map(({ check, found }, i): DiagnosisEvidence => {
    try {
      return { check, found: foundIn(check, found, context) };
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
