import type { Advice } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { CHEMISTRY_WORDS, hoursWords } from './plan-words';
import { repairedPart } from './repair-words';
import { runDownWords } from './road-words';
import { driveWords } from './words';
import { SUSPECT_WORDS } from './verdict-words';

/** The grounds of the finding. */
export interface FoundOn {
  /** The rest volts of its battery were read. */
  readonly isRead: boolean;
  readonly wasJoined: boolean;
}

const flatWords = (isRead: boolean, isSure: boolean): string => {
  if (isRead && isSure) return 'Your battery was flat.';
  return isRead ? 'Your battery was low.' : 'Your battery was probably flat: it was not measured.';
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
      return 'Your battery is sound. Keep it.';
    case 'charge-first':
      return `${flatWords(isRead, isSure)} Charge it to full, then have it judged: flat is not bad.${part ? ` ${isSure ? 'What made it flat must be mended as well' : 'What may have made it flat is looked at as well'}: ${part}.` : ''}`;
    case 'replace-soon':
      return isSure
        ? 'Your battery is near the end of its life. It will leave you standing again.'
        : 'Your battery is probably near the end of its life. One more test would tell.';
    case 'replace-now':
      return isSure
        ? 'Your battery is worn out. It cannot be trusted to the next start.'
        : 'Your battery is probably worn out. Do not trust it to the next start.';
    case 'not-the-battery':
      return isSure
        ? `Your battery is not to blame: ${part || 'the fault is elsewhere'}.`
        : `Your battery is probably not to blame: most likely ${part || 'the fault is elsewhere'}.`;
    case 'repaired':
      return `The fault was mended on the spot: ${repaired.length > 0 ? repaired.map(repairedPart).join(', ') : part}.`;
    case 'not-known':
      return 'It is not clear yet why it did not start. One more look will tell.';
    case 'unsafe':
      return wasJoined
        ? 'It was not safe to go on. Everything was taken off again.'
        : 'It was not safe to start or charge it. Nothing was joined.';
  }
}

/** A piece of advice in plain words. */
export function adviceWords(advice: Advice): string {
  switch (advice.id) {
    case 'leave-it':
      return 'Leave it as it is: do not start it, charge it or join anything to it. Have it taken to a workshop.';
    case 'drive-now':
      return `Do not stop the engine for ${advice.drive.leastMinutes} min at least, with heater, lamps and seat warmers low. ${driveWords(advice.drive)}`;
    case 'charging-unread':
      return 'Whether it charges while it runs was not measured: have that done before you drive it.';
    case 'do-not-drive':
      return `Do not drive it: it does not charge while it runs. Have it towed. On a charged battery it runs ${runDownWords(advice.charged)}, then it stops.`;
    case 'keep-awake':
      return 'Leave it awake, or plugged in, until its small battery is full: two hours or more.';
    case 'charge-full':
      return `Charge it to full with about ${advice.amps.toFixed(advice.amps < 10 ? 1 : 0)} A${advice.hours === null ? '' : `, ${hoursWords(advice.hours)}`}. A drive home does not fill it.`;
    case 'bring-back':
      return 'Once full, let it stand a day and have it tested: only then is it known whether it is worn.';
    case 'replace': {
      const { chemistries, capacityAh, ccaAmps } = advice.need;
      const kinds = chemistries.map((c) => CHEMISTRY_WORDS[c]).join(' or ');
      return `Have the battery replaced${advice.days > 0 ? ` within ${advice.days} days` : ' before you rely on it'}: ${kinds}, at least ${capacityAh} Ah and ${ccaAmps.EN} A (EN).`;
    }
    case 'workshop':
      return `Have this seen to in a workshop: ${SUSPECT_WORDS[advice.suspect]}. Until then it may fail again.`;
    case 'charge-monthly':
      return 'Short trips never fill a battery: charge it once a month.';
    case 'maintainer':
      return `Parked for weeks, leave it on a maintainer of about ${advice.amps} A: a fused lead with a keyed plug stays on the battery, led where no door or fan cuts it.`;
    case 'minus-off':
      return 'Or take the negative clamp off while it is parked for weeks.';
    case 'switch-off-first':
      return 'Before the engine goes off: lamps, fan, heated screen and seats off. After it: look back for a lamp.';
    case 'unplug-gadgets':
      return 'Unplug cameras, trackers and chargers where it is parked: they drink day and night.';
    case 'deep-hurts':
      return 'It was drawn very deep. Each time costs a part of its life: do not let it stand flat.';
    case 'flat-again':
      return `Flat twice within ${advice.days} days: have the battery and what drains it tested, not jumped again.`;
    case 'inspect':
      return 'Every six months: clamps tight and clean, case dry, hold-down firm.';
  }
}
