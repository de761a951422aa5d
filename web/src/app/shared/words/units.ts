import { signal } from '@angular/core';
import { messagesOf } from './messages-of';
import { fixed, plainNumber } from './numbers';

const WORDS: Readonly<Record<string, string>> = messagesOf('unit');

/** A unit as the language in use writes it: a sign stays, a word is translated. */
export const unitWord = (unit: string): string => WORDS[unit] ?? unit;

/** Units that a device shows in place of °C, mm² and m. What is kept and computed stays SI. */
export interface ShownUnits {
  readonly fahrenheit: boolean;
  readonly wireGauge: boolean;
  readonly feet: boolean;
}

const chosen = signal<ShownUnits>({ fahrenheit: false, wireGauge: false, feet: false });
/** Sets what this device shows; everything on screen follows. */
export const showUnits = (units: ShownUnits): void => chosen.set(units);

/** A figure of one unit as this device shows it, and back. */
export interface ShownUnit {
  readonly unit: string;
  readonly show: (value: number) => number;
  readonly keep: (shown: number) => number;
}
const asItIs = (unit: string): ShownUnit => ({ unit, show: (v) => v, keep: (v) => v });

const FEET_PER_M = 1 / 0.3048;
/** Gauge 36 is 0.127 mm across, and each step of 39 to gauge 0000 is a 92nd root: the definition of the wire gauge. */
const GAUGE = { at: 36, acrossMm: 0.127, steps: 39, ratio: 92 };

function gaugeOf(mm2: number): number {
  const acrossMm = Math.sqrt((4 * mm2) / Math.PI);
  return GAUGE.at - (GAUGE.steps * Math.log(acrossMm / GAUGE.acrossMm)) / Math.log(GAUGE.ratio);
}
function mm2OfGauge(gauge: number): number {
  const acrossMm = GAUGE.acrossMm * GAUGE.ratio ** ((GAUGE.at - gauge) / GAUGE.steps);
  return (Math.PI / 4) * acrossMm ** 2;
}

const FAHRENHEIT: ShownUnit = { unit: '°F', show: (c) => c * 1.8 + 32, keep: (f) => (f - 32) / 1.8 };
const RISE: ShownUnit = { unit: '°F', show: (c) => c * 1.8, keep: (f) => f / 1.8 };
const FEET: ShownUnit = { unit: 'ft', show: (m) => m * FEET_PER_M, keep: (ft) => ft / FEET_PER_M };
/** Typed as a number: gauges over 0 are less than 0, so that 0000 is -3. */
const WIRE_GAUGE: ShownUnit = { unit: 'AWG', show: gaugeOf, keep: mm2OfGauge };

/** A unit of SI as this device shows it; `K` is a rise of temperature. Any other stays as it is. */
export function shownUnit(unit: string): ShownUnit {
  const { fahrenheit, wireGauge, feet } = chosen();
  if (unit === '°C' && fahrenheit) return FAHRENHEIT;
  if (unit === 'K') return fahrenheit ? RISE : asItIs('°C');
  if (unit === 'mm²' && wireGauge) return WIRE_GAUGE;
  return unit === 'm' && feet ? FEET : asItIs(unitWord(unit));
}

export const degrees = (celsius: number): string => {
  const { unit, show } = shownUnit('°C');
  return `${fixed(Math.round(show(celsius)))} ${unit}`;
};

/** A difference of temperature. */
export const degreesMore = (kelvin: number): string => {
  const { unit, show } = shownUnit('K');
  return `${Math.round(show(kelvin))} ${unit}`;
};

/** A length; a figure that is nobody's measure is told in so many places. */
export const metres = (value: number, places?: number): string => {
  const { unit, show } = shownUnit('m');
  const shown = show(value);
  if (unit === 'm') return `${places === undefined ? plainNumber(value) : fixed(value, places)} m`;
  return `${plainNumber(Number(shown.toFixed(Math.min(1, places ?? 1))))} ${unit}`;
};

/** The section of a lead. Gauges have names, not figures: the nearest is told. */
export function section(mm2: number): string {
  if (shownUnit('mm²').unit === 'mm²') return `${plainNumber(mm2)} mm²`;
  const gauge = Math.round(gaugeOf(mm2));
  return `${gauge > 0 ? gauge : '0'.repeat(1 - gauge)} AWG`;
}

const figureOf = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));

/** A figure kept in this unit, as text in the unit of this device; what is no figure stays as it is. */
export function inShownUnit(text: string, unit: string): string {
  const shown = shownUnit(unit);
  const value = figureOf(text);
  return shown.unit === unit || Number.isNaN(value)
    ? text
    : String(Math.round(shown.show(value) * 100) / 100);
}

/** The same, back from what was typed. */
export function fromShownUnit(text: string, unit: string): string {
  const shown = shownUnit(unit);
  const value = figureOf(text);
  return shown.unit === unit || Number.isNaN(value)
    ? text
    : String(Math.round(shown.keep(value) * 1000) / 1000);
}
