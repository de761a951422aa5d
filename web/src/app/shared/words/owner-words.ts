import type { Advice } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { CHEMISTRY_WORDS, hoursWords } from './plan-words';
import { repairedPart } from './repair-words';
import { driveWords } from './words';
import { SUSPECT_WORDS } from './verdict-words';

/** What was wrong, as an owner is told it. */
export function ownerFinding({ verdict, suspect, repaired = [] }: VerdictRecord): string {
  const part = suspect ? SUSPECT_WORDS[suspect] : '';
  switch (verdict) {
    case 'keep':
      return 'Your battery is sound. Keep it.';
    case 'charge-first':
      return `Your battery was flat. Flat is not bad: charge it to full, then have it judged.${part ? ` What made it flat must be mended as well: ${part}.` : ''}`;
    case 'replace-soon':
      return 'Your battery is near the end of its life. It will leave you standing again.';
    case 'replace-now':
      return 'Your battery is worn out. It cannot be trusted to the next start.';
    case 'not-the-battery':
      return `Your battery is not to blame: ${part || 'the fault is elsewhere'}.`;
    case 'repaired':
      return `The fault was mended on the spot: ${repaired.length > 0 ? repaired.map(repairedPart).join(', ') : part}.`;
    case 'not-known':
      return 'It is not clear yet why it did not start. One more look will tell.';
    case 'unsafe':
      return 'It was not safe to start or charge it. Nothing was joined.';
  }
}

/** A piece of advice in plain words. */
export function adviceWords(advice: Advice): string {
  switch (advice.id) {
    case 'leave-it':
      return 'Leave it as it is: do not start it, charge it or join anything to it. Have it taken to a workshop.';
    case 'drive-now':
      return `Do not stop the engine for ${advice.drive.leastMinutes} min at least, with heater, lamps and seat warmers low. ${driveWords(advice.drive)}`;
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
