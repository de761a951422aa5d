import { hazardLine } from './hazard-words';
import { isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import type { Drill, DrillKind, HarmlessSign, TraceStory } from '@voltrek/core/practice';
import { CHECK_WORDS, FINDING_NAMES, foundWords } from './diagnosis-words';
import { reasonWords } from './earth-words';
import { volts } from './figures';
import { CHEMISTRY_WORDS } from './plan-words';
import { CLASS_WORDS, POINT_KIND_WORDS, STOP_WORDS } from './words';
import type { MachineClass } from '@voltrek/core/machine';
import { inWords } from './template-words';
import { CLAMP_CONTACT_WORDS } from './kit-words';
import { messagesOf } from './messages-of';
import { asBeginning, fixed } from './numbers';
import { degrees, metres, section } from './units';

const COLOURS = messagesOf('hands');

export const DRILL_WORDS: Record<DrillKind, { readonly name: string; readonly asks: string }> =
  messagesOf('drill');

const STORY_WORDS: Record<TraceStory, { readonly name: string; readonly why: string }> = messagesOf('story');

const HARMLESS_WORDS: Record<HarmlessSign, string> = messagesOf('harmless');
const isHarmless = (sign: string): sign is HarmlessSign => sign in HARMLESS_WORDS;

const T = messagesOf('drillFacts');
const classOf = (machineClass: MachineClass): string => asBeginning(CLASS_WORDS[machineClass]);

/** The facts of the case, line by line. */
export function drillLines(drill: Drill): string[] {
  switch (drill.kind) {
    case 'order':
      return [T.order({ machine: classOf(drill.machine.machineClass) })];
    case 'reading':
      return [
        T.reading({ machine: classOf(drill.machineClass), temp: degrees(drill.tempC) }),
        ...drill.evidence.map(({ check, found }) =>
          T.finding({ check: FINDING_NAMES[check], found: foundWords(check, found) }),
        ),
      ];
    case 'frozen':
      return [
        asBeginning(T.frozen({ chemistry: CHEMISTRY_WORDS[drill.chemistry], volts: volts(drill.restVolts) })),
        T.coldest({ temp: degrees(drill.coldestC) }),
      ];
    case 'leads':
      return [
        T.leads({ machine: classOf(drill.machineClass), temp: degrees(drill.tempC) }),
        T.fires({ rpm: fixed(drill.neededRpm) }),
      ];
    case 'trace':
      return [T.trace({ machine: classOf(drill.machineClass), temp: degrees(drill.tempC) })];
    case 'stop':
      return [
        T.stop({ machine: classOf(drill.machineClass) }),
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
        const point = machine && inWords(machine).points.find(({ id }) => id === action.pointId);
        const values = {
          colour: isRedClamp(action.clamp) ? COLOURS.red : COLOURS.black,
          place: point ? POINT_KIND_WORDS[point.kind] : '',
        };
        return isSource ? T.onDonor(values) : T.onCasualty(values);
      });
    case 'reading':
      return drill.choices.map(({ check }) => CHECK_WORDS[check].ask);
    case 'frozen':
      return [T.joinIt, T.leaveIt];
    case 'leads':
      return drill.choices.map(({ leads: { sectionMm2, lengthM, conductor, contact } }) =>
        T.leadSet({
          section: section(sectionMm2),
          length: metres(lengthM),
          material: conductor === 'copper' ? T.copper : T.clad,
          contact: CLAMP_CONTACT_WORDS[contact],
        }),
      );
    case 'trace':
      return drill.choices.map((story) => STORY_WORDS[story].name);
    case 'stop':
      return [T.goOn, T.stopNow];
  }
}

/** Why the answer is what it is, with the figures; and what the one that was given would have done. */
export function drillWhy(drill: Drill, given: number): string[] {
  switch (drill.kind) {
    case 'order': {
      const { step } = drill.choices[drill.right]!;
      const { worst } = drill.choices[given]!;
      return [
        asBeginning(reasonWords(step)),
        ...(given !== drill.right && worst ? [T.yours({ hazard: hazardLine(worst) })] : []),
      ];
    }
    case 'reading':
      return drill.choices.map(({ check, gainBits, minutes }) =>
        T.gain({ check: FINDING_NAMES[check], bits: fixed(gainBits, 2), minutes }),
      );
    case 'frozen':
      if (drill.bar === 'reversed') return [T.backwards];
      return drill.freezesAtC === null ? [T.lithium] : [T.acid({ temp: degrees(drill.freezesAtC) })];
    case 'leads':
      return drill.choices.map(({ leads, rpm, turns }) =>
        T.leadsWhy({
          section: section(leads.sectionMm2),
          rpm: fixed(rpm),
          outcome: outcome(turns, rpm, drill),
        }),
      );
    case 'trace': {
      const turned =
        drill.rpm > 0 ? T.turns({ rpm: fixed(drill.rpm), neededRpm: fixed(drill.neededRpm) }) : T.turnsNot;
      const { restVolts, leastVolts, lastVolts } = drill;
      return [
        STORY_WORDS[drill.choices[drill.right]!].why,
        T.traceWhy({ rest: volts(restVolts), least: volts(leastVolts), last: volts(lastVolts), turned }),
      ];
    }
    case 'stop':
      return drill.stops.length === 0
        ? [T.noStop]
        : drill.stops.map((stop) => `${STOP_WORDS[stop].wrong} ${STOP_WORDS[stop].instead}`);
  }
}

const outcome = (turns: boolean, rpm: number, { neededRpm }: { readonly neededRpm: number }): string => {
  if (turns) return T.starts;
  return rpm < neededRpm ? T.tooSlow : T.lowVolts;
};
