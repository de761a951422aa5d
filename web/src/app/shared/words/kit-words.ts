import { metres, section } from './units';
import { convertCca } from '@voltrek/core/battery';
import {
  CLAMP_OHMS,
  type ClampContact,
  factorOver,
  hasLost,
  leadSetOhms,
  type MeasuredFactor,
} from '@voltrek/core/leads';
import { bankOf, type KitItem, type LeadSetKit, type TriedPack } from '@voltrek/core/sources';
import { messagesOf } from './messages-of';

/** Temperature that lead figures on the kit list are stated at, degC. */
const STATED_C = 20;
/** Current that the loss is stated at, A: a middling crank. */
const STATED_AMPS = 200;

/** A set against a new one, as one moment or several have measured it. */
export function factorWords({ factor, spread }: MeasuredFactor): string {
  return `${factor.toFixed(2)} times the resistance of a new set, give or take ${Math.max(0.01, 2 * spread).toFixed(2)}`;
}

/** Returns the lesson of a set's uses: its loss beyond a new one, and to look at its clamps where that is sure. */
function measuredWords({ leads, uses = [] }: LeadSetKit): string {
  const measured = factorOver(uses);
  if (!measured) return '';
  const more = (measured.factor - 1) * leadSetOhms(leads, STATED_C) * STATED_AMPS;
  const told = `. Measured over ${uses.length} ${uses.length === 1 ? 'use' : 'uses'}: ${factorWords(measured)}`;
  if (!hasLost(measured)) return told;
  return `${told}; loses ${more.toFixed(1)} V more at ${STATED_AMPS} A: look at its clamps`;
}

/** Returns the lesson of a pack's tries; empty where there was none. */
function triedWords({ uses = [] }: TriedPack): string {
  const tried = factorOver(uses);
  if (!tried) return '';
  const { factor, spread } = tried;
  const told = `. By the tries of ${uses.length} ${uses.length === 1 ? 'job' : 'jobs'}: ${factor.toFixed(1)} times the resistance of its rating, give or take ${Math.max(0.1, 2 * spread).toFixed(1)}`;
  return hasLost(tried) ? `${told}: weaker than rated, test it or replace it` : told;
}

/** Returns a piece of kit and its strength, in one line. */
export function kitLine(item: KitItem): string {
  switch (item.kind) {
    case 'donor':
      return `${item.systemVolts} V, battery ${item.battery.capacityAh} Ah ${item.battery.ccaAmps} A ${item.battery.ccaStandard}, lends ${item.alternatorSpareAmps} A at idle`;
    case 'lead-set': {
      const { sectionMm2, lengthM, conductor, contact } = item.leads;
      const lost = leadSetOhms(item.leads, STATED_C) * STATED_AMPS;
      const material = conductor === 'copper' ? 'copper' : 'copper-clad aluminium';
      return `${section(sectionMm2)}, ${metres(lengthM)}, ${material}, clamps ${contact} (${(CLAMP_OHMS[contact] * 1000).toFixed(1)} mohm each): loses ${lost.toFixed(2)} V at ${STATED_AMPS} A${measuredWords(item)}`;
    }
    case 'lithium-pack':
      return `${item.peakAmps} A peak for ${item.peakSeconds} s${triedWords(item)}`;
    case 'lead-pack': {
      const sae = convertCca(item.battery.ccaAmps, item.battery.ccaStandard, 'SAE');
      return `${item.outputs.join(' or ')} V, ${item.battery.capacityAh} Ah, about ${Math.round(sae)} A SAE${triedWords(item)}`;
    }
    case 'capacitor-booster':
      return `${item.cells} cells of ${item.cellFarads} F: bank ${bankOf(item).farads.toFixed(1)} F at ${item.volts.toFixed(1)} V${
        item.converterAmps === null ? '' : `, fills itself from a weak battery at ${item.converterAmps} A`
      }`;
    case 'spare-batteries':
      return `${item.count} of ${item.battery.capacityAh} Ah ${item.battery.ccaAmps} A ${item.battery.ccaStandard}: one across one battery, or two in series for 24 V`;
    case 'mains-charger':
      return item.startAmps === null
        ? `${item.amps} A at ${item.volts} V: off and unplugged before the crank`
        : `${item.amps} A at ${item.volts} V, ${item.startAmps} A at its engine-start setting`;
    case 'hobby-lithium':
      return `${item.capacityAh} Ah at ${item.cRate} times capacity: ${item.capacityAh * item.cRate} A, never past 12.6 V. By house rule only`;
    case 'latch-source':
      return `${item.volts} V: releases a latch, nothing else`;
    case 'instrument':
      return TOOL_LINES[item.tool];
  }
}

/** How well the clamps of a set make contact. */
export const CLAMP_CONTACT_WORDS: Record<ClampContact, string> = messagesOf('clampContact');

export const KIT_KIND_WORDS: Record<KitItem['kind'], string> = messagesOf('kitKind');

const TOOL_LINES: Record<Extract<KitItem, { kind: 'instrument' }>['tool'], string> = messagesOf('toolLines');
