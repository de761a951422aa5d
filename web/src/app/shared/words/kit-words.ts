import { metres, section } from './units';
import { convertCca } from '@voltrek/core/battery';
import {
  CLAMP_OHMS,
  type ClampContact,
  type Conductor,
  factorOver,
  hasLost,
  leadSetOhms,
  type MeasuredFactor,
} from '@voltrek/core/leads';
import {
  bankOf,
  type InstrumentTool,
  type KitItem,
  type LeadSetKit,
  type TriedPack,
} from '@voltrek/core/sources';
import { messagesOf } from './messages-of';
import { anyOf, fixed } from './numbers';

/** Temperature that lead figures on the kit list are stated at, degC. */
const STATED_C = 20;
/** Current that the loss is stated at, A: a middling crank. */
const STATED_AMPS = 200;

const T = messagesOf('kitLine');

/** A set against a new one, as one moment or several have measured it. */
export const factorWords = ({ factor, spread }: MeasuredFactor): string =>
  T.factor({ factor: fixed(factor, 2), spread: fixed(Math.max(0.01, 2 * spread), 2) });

/** Returns the lesson of a set's uses: its loss beyond a new one, and to look at its clamps where that is sure. */
function measuredWords({ leads, uses = [] }: LeadSetKit): string {
  const measured = factorOver(uses);
  if (!measured) return '';
  const more = (measured.factor - 1) * leadSetOhms(leads, STATED_C) * STATED_AMPS;
  const values = { uses: uses.length, factor: factorWords(measured) };
  return hasLost(measured)
    ? T.measuredLost({ ...values, more: fixed(more, 1), amps: STATED_AMPS })
    : T.measured(values);
}

/** Returns the lesson of a pack's tries; empty where there was none. */
function triedWords({ uses = [] }: TriedPack): string {
  const tried = factorOver(uses);
  if (!tried) return '';
  const { factor, spread } = tried;
  const values = { jobs: uses.length, factor: fixed(factor, 1), spread: fixed(Math.max(0.1, 2 * spread), 1) };
  return hasLost(tried) ? T.triedLost(values) : T.tried(values);
}

/** Returns a piece of kit and its strength, in one line. */
export function kitLine(item: KitItem): string {
  switch (item.kind) {
    case 'donor': {
      const { capacityAh, ccaAmps, ccaStandard: standard } = item.battery;
      const { systemVolts, alternatorSpareAmps: spareAmps } = item;
      return T.donor({ systemVolts, capacityAh, ccaAmps, standard, spareAmps });
    }
    case 'lead-set': {
      const { sectionMm2, lengthM, conductor, contact } = item.leads;
      return T.leadSet({
        section: section(sectionMm2),
        length: metres(lengthM),
        material: CONDUCTOR_WORDS[conductor],
        contact: CLAMP_CONTACT_WORDS[contact],
        milliohms: fixed(CLAMP_OHMS[contact] * 1000, 1),
        lost: fixed(leadSetOhms(item.leads, STATED_C) * STATED_AMPS, 2),
        amps: STATED_AMPS,
        measured: measuredWords(item),
      });
    }
    case 'lithium-pack':
      return T.lithiumPack({ peakAmps: item.peakAmps, seconds: item.peakSeconds, tried: triedWords(item) });
    case 'lead-pack': {
      const sae = convertCca(item.battery.ccaAmps, item.battery.ccaStandard, 'SAE');
      return T.leadPack({
        outputs: anyOf(item.outputs.map(String)),
        capacityAh: item.battery.capacityAh,
        sae: Math.round(sae),
        tried: triedWords(item),
      });
    }
    case 'capacitor-booster': {
      const { cells, cellFarads, converterAmps: amps } = item;
      const values = {
        cells,
        cellFarads,
        farads: fixed(bankOf(item).farads, 1),
        volts: fixed(item.volts, 1),
      };
      return amps === null ? T.booster(values) : T.boosterFills({ ...values, amps });
    }
    case 'spare-batteries': {
      const { capacityAh, ccaAmps, ccaStandard: standard } = item.battery;
      return T.spares({ count: item.count, capacityAh, ccaAmps, standard });
    }
    case 'mains-charger': {
      const { amps, volts, startAmps } = item;
      return startAmps === null ? T.charger({ amps, volts }) : T.chargerStarts({ amps, volts, startAmps });
    }
    case 'hobby-lithium': {
      const { capacityAh, cRate } = item;
      return T.hobby({ capacityAh, cRate, amps: capacityAh * cRate });
    }
    case 'latch-source':
      return T.latch({ volts: item.volts });
    case 'instrument':
      return TOOL_LINES[item.tool];
  }
}

/** The metal of a lead. */
export const CONDUCTOR_WORDS: Record<Conductor, string> = messagesOf('conductor');

/** How well the clamps of a set make contact. */
export const CLAMP_CONTACT_WORDS: Record<ClampContact, string> = messagesOf('clampContact');

export const KIT_KIND_WORDS: Record<KitItem['kind'], string> = messagesOf('kitKind');

/** An instrument of a van. */
export const TOOL_WORDS: Record<InstrumentTool, string> = messagesOf('toolKind');

const TOOL_LINES: Record<InstrumentTool, string> = messagesOf('toolLines');

/** The name that a new piece of kit begins with. */
export const NEW_KIT_NAMES: Record<KitItem['kind'], string> = messagesOf('kitName');
