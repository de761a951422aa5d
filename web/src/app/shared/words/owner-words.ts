import type { MachineClass } from '@voltrek/core/machine';
import type { Advice } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { messagesOf } from './messages-of';
import { anyOf } from './numbers';
import { CHEMISTRY_WORDS, hoursWords } from './plan-words';
import { repairedPart } from './repair-words';
import { runDownWords } from './road-words';
import { driveWords } from './words';
import { SUSPECT_WORDS } from './verdict-words';
import { ampsFigure } from './figures';

const FINDING = messagesOf('ownerFinding');
const ADVICE = messagesOf('advice');

/** The grounds of the finding. */
export interface FoundOn {
  /** The rest volts of its battery were read. */
  readonly isRead: boolean;
  readonly wasJoined: boolean;
}

const flatWords = (isRead: boolean, isSure: boolean): string => {
  if (isRead && isSure) return FINDING.flat;
  return isRead ? FINDING.low : FINDING.probablyFlat;
};

/** The fault, as an owner is told it. */
export function ownerFinding(
  { verdict, suspect, certainty, repaired = [] }: VerdictRecord,
  { isRead, wasJoined }: FoundOn,
): string {
  const part = suspect ? SUSPECT_WORDS[suspect] : '';
  // No more is said than was found.
  const isSure = certainty !== 'unsure';
  switch (verdict) {
    case 'keep':
      return FINDING.keep;
    case 'charge-first': {
      const charge = FINDING.chargeFirst({ flat: flatWords(isRead, isSure) });
      if (!part) return charge;
      return `${charge} ${isSure ? FINDING.mendCause({ part }) : FINDING.lookAtCause({ part })}`;
    }
    case 'replace-soon':
      return isSure ? FINDING.replaceSoon : FINDING.replaceSoonUnsure;
    case 'replace-now':
      return isSure ? FINDING.replaceNow : FINDING.replaceNowUnsure;
    case 'not-the-battery': {
      const blamed = { part: part || FINDING.elsewhere };
      return isSure ? FINDING.notBattery(blamed) : FINDING.notBatteryUnsure(blamed);
    }
    case 'repaired':
      return FINDING.repaired({ part: repaired.length > 0 ? repaired.map(repairedPart).join(', ') : part });
    case 'not-known':
      return FINDING.notKnown;
    case 'unsafe':
      return wasJoined ? FINDING.unsafeJoined : FINDING.unsafe;
  }
}

/** A piece of advice in plain words, in those of its machine: a motorcycle has no heater. */
export function adviceWords(advice: Advice, machineClass: MachineClass): string {
  const isMotorcycle = machineClass === 'motorcycle';
  switch (advice.id) {
    case 'drive-now': {
      const values = { minutes: advice.drive.leastMinutes, drive: driveWords(advice.drive) };
      return ADVICE[isMotorcycle ? 'drive-now-motorcycle' : 'drive-now'](values);
    }
    case 'do-not-drive':
      return ADVICE['do-not-drive']({ time: runDownWords(advice.charged, machineClass) });
    case 'charge-full': {
      const amps = ampsFigure(advice.amps);
      return advice.hours === null
        ? ADVICE['charge-full']({ amps })
        : ADVICE['charge-full-hours']({ amps, hours: hoursWords(advice.hours) });
    }
    case 'replace': {
      const { chemistries, capacityAh, ccaAmps } = advice.need;
      const kinds = anyOf(chemistries.map((c) => CHEMISTRY_WORDS[c]));
      const values = { kinds, capacityAh, ccaAmps: ccaAmps.EN };
      return advice.days > 0
        ? ADVICE['replace-within']({ ...values, days: advice.days })
        : ADVICE.replace(values);
    }
    case 'workshop':
      return ADVICE.workshop({ part: SUSPECT_WORDS[advice.suspect] });
    case 'maintainer':
      return ADVICE.maintainer({ amps: advice.amps });
    case 'flat-again':
      return ADVICE['flat-again']({ days: advice.days });
    case 'switch-off-first':
      return ADVICE[isMotorcycle ? 'switch-off-first-motorcycle' : 'switch-off-first'];
    default:
      return ADVICE[advice.id];
  }
}
