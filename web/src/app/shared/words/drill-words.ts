import { hazardLine } from '@voltrek/contracts/words';
import { isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import type { Drill, DrillKind, HarmlessSign, TraceStory } from '@voltrek/core/practice';
import { CHECK_WORDS, FINDING_NAMES, foundWords } from './diagnosis-words';
import { reasonWords } from './earth-words';
import { volts } from './figures';
import { CHEMISTRY_WORDS } from './plan-words';
import { CLASS_WORDS, POINT_KIND_WORDS, STOP_WORDS } from './words';
import { messagesOf } from './messages-of';

export const DRILL_WORDS: Record<DrillKind, { readonly name: string; readonly asks: string }> =
  messagesOf('drill');

const STORY_WORDS: Record<TraceStory, { readonly name: string; readonly why: string }> = messagesOf('story');

const HARMLESS_WORDS: Record<HarmlessSign, string> = messagesOf('harmless');
const isHarmless = (sign: string): sign is HarmlessSign => sign in HARMLESS_WORDS;

/** The facts of the case, line by line. */
export function drillLines(drill: Drill): string[] {
  switch (drill.kind) {
    case 'order':
      return [`${capital(CLASS_WORDS[drill.machine.machineClass])}, a donor beside it, nothing else known.`];
    case 'reading':
      return [
        `${capital(CLASS_WORDS[drill.machineClass])}, ${drill.tempC} °C`,
        ...drill.evidence.map(({ check, found }) => `${FINDING_NAMES[check]}: ${foundWords(check, found)}`),
      ];
    case 'frozen':
      return [
        `${capital(CHEMISTRY_WORDS[drill.chemistry])} battery, rests at ${volts(drill.restVolts)}.`,
        `The coldest since it last ran: ${drill.coldestC} °C.`,
      ];
    case 'leads':
      return [
        `${capital(CLASS_WORDS[drill.machineClass])}, ${drill.tempC} °C, a donor on it.`,
        `It fires from ${Math.round(drill.neededRpm)} rpm.`,
      ];
    case 'trace':
      return [
        `${capital(CLASS_WORDS[drill.machineClass])}, ${drill.tempC} °C. Volts at the posts: rest, key on, start, and after.`,
      ];
    case 'stop':
      return [
        `${capital(CLASS_WORDS[drill.machineClass])}. What is seen:`,
        ...drill.signs.map((sign) => (isHarmless(sign) ? HARMLESS_WORDS[sign] : STOP_WORDS[sign].sign)),
      ];
  }
}

/** The possible answers, in order. */
export function drillChoices(drill: Drill): string[] {
  switch (drill.kind) {
    case 'order':
      return drill.choices.map(({ step: { action } }) => {
        if (action.kind !== 'attach') return '';
        const isSource = isSourceClamp(action.clamp);
        const machine = isSource ? drill.scene.donor : drill.machine;
        const point = machine?.points.find(({ id }) => id === action.pointId);
        const place = point ? POINT_KIND_WORDS[point.kind] : '';
        return `${isRedClamp(action.clamp) ? 'Red' : 'Black'} on ${isSource ? 'donor' : 'casualty'} ${place}`;
      });
    case 'reading':
      return drill.choices.map(({ check }) => CHECK_WORDS[check].ask);
    case 'frozen':
      return ['Join it', 'Leave it'];
    case 'leads':
      return drill.choices.map(
        ({ leads: { sectionMm2, lengthM, conductor, contact } }) =>
          `${sectionMm2} mm², ${lengthM} m, ${conductor === 'copper' ? 'copper' : 'copper-clad'}, clamps ${contact}`,
      );
    case 'trace':
      return drill.choices.map((story) => STORY_WORDS[story].name);
    case 'stop':
      return ['Go on', 'Stop'];
  }
}

/** Why the answer is what it is, with the figures; and what the one that was given would have done. */
export function drillWhy(drill: Drill, given: number): string[] {
  switch (drill.kind) {
    case 'order': {
      const { step } = drill.choices[drill.right]!;
      const { worst } = drill.choices[given]!;
      return [
        capital(reasonWords(step)),
        ...(given !== drill.right && worst ? [`Yours: ${hazardLine(worst)}`] : []),
      ];
    }
    case 'reading':
      return drill.choices.map(
        ({ check, gainBits, minutes }) =>
          `${FINDING_NAMES[check]}: tells ${gainBits.toFixed(2)} of a yes or no, in ${minutes} min.`,
      );
    case 'frozen':
      if (drill.bar === 'reversed')
        return ['Below zero it was driven backwards: never joined, never revived.'];
      return drill.freezesAtC === null
        ? ['Lithium has no acid to freeze. Its own guard decides in the cold.']
        : [`At what it may hold its acid freezes at ${drill.freezesAtC.toFixed(0)} °C.`];
    case 'leads':
      return drill.choices.map(
        ({ leads, rpm, turns }) =>
          `${leads.sectionMm2} mm²: ${Math.round(rpm)} rpm, ${outcome(turns, rpm, drill)}.`,
      );
    case 'trace': {
      const turned =
        drill.rpm > 0
          ? `turns at ${Math.round(drill.rpm)} of ${Math.round(drill.neededRpm)} rpm`
          : 'does not turn';
      return [
        STORY_WORDS[drill.choices[drill.right]!].why,
        `Rest ${volts(drill.restVolts)}, lowest ${volts(drill.leastVolts)}, at last ${volts(drill.lastVolts)}: it ${turned}.`,
      ];
    }
    case 'stop':
      return drill.stops.length === 0
        ? ['Nothing of it stops you: mend, read, go on.']
        : drill.stops.map((stop) => `${STOP_WORDS[stop].wrong} ${STOP_WORDS[stop].instead}`);
  }
}

const outcome = (turns: boolean, rpm: number, { neededRpm }: { readonly neededRpm: number }): string => {
  if (turns) return 'starts';
  return rpm < neededRpm ? 'too slow' : 'fast enough, but its control units lose their volts';
};

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
