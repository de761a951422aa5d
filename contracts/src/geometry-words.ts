import type { GeometryFault, GeometryFaultCode } from '@voltrek/core/machine';

const WORDS: Record<GeometryFaultCode, string> = {
  'outline-open': 'the outline does not close around a body: give at least three corners that enclose one',
  'outline-crosses-itself': 'the outline crosses itself',
  'outline-outside-size': 'the outline goes beyond the length and width',
  'side-open': 'the side view does not close around a body',
  'side-crosses-itself': 'the side view crosses itself',
  'point-outside': 'the point lies outside the outline',
  'battery-outside': 'the battery lies outside the outline',
  'zone-outside': 'the zone lies outside the outline',
  'batteries-overlap': 'the battery lies over another battery',
  'unknown-battery': 'the point belongs to a battery that is not there',
  'same-id': 'another point has the same id',
  'latch-wire-alone': 'latch wires come in pairs: one is missing',
  'string-does-not-match-volts': 'one battery for each 12 V of the system is needed',
  'no-black-point': 'no point takes a black clamp',
};

/** A fault of a machine's geometry in words. */
export const geometryWords = ({ code }: GeometryFault): string => WORDS[code];
