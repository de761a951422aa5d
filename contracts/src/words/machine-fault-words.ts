import type { DataFault, DataFaultCode, GeometryFault, GeometryFaultCode } from '@voltrek/core/machine';

const WORDS: Record<GeometryFaultCode | DataFaultCode, string> = {
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
  'engine-does-not-match-volts': 'the starter and the batteries are of different volts',
  'engine-of-an-electric': 'an electric vehicle has no engine to crank',
  'string-mixed': 'the batteries of a string are of one kind and size',
  'rating-unlikely': 'no battery has so many, or so few, cold-cranking amps for its Ah',
  'no-red-point': 'no point takes a red clamp',
  'no-black-point': 'no point takes a black clamp',
  'positive-earth-unknown':
    'a machine with its plus on the body has an engine, one battery and the posts of that battery, no others',
};

/** A fault of a machine's drawing or data in words. */
export const machineFaultWords = ({ code }: GeometryFault | DataFault): string => WORDS[code];
