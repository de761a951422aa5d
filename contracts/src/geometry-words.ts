import type { GeometryFault, GeometryFaultCode } from '@voltrek/core';

const WORDS: Record<GeometryFaultCode, string> = {
  'outline-open': 'the outline does not close around a body: give at least three corners that enclose one',
  'outline-crosses-itself': 'the outline crosses itself',
  'outline-outside-size': 'the outline goes beyond the length and width',
  'side-open': 'the side view does not close around a body',
  'side-crosses-itself': 'the side view crosses itself',
  'point-outside': 'the point lies outside the outline',
  'block-outside': 'the block lies outside the outline',
  'zone-outside': 'the zone lies outside the outline',
  'blocks-overlap': 'the block lies over another block',
  'unknown-block': 'the point belongs to a block that is not there',
  'same-id': 'another point has the same id',
  'latch-wire-alone': 'latch wires come in pairs: one is missing',
  'string-does-not-match-volts': 'one block for each 12 V of the system is needed',
  'no-black-point': 'no point takes a black clamp',
};

/** A fault of a machine's geometry in words. */
export const geometryWords = ({ code }: GeometryFault): string => WORDS[code];
