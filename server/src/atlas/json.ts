import type { RowFault } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import {
  findNodeAtLocation,
  getNodeValue,
  type Node,
  parseTree,
  type ParseError,
  printParseErrorCode,
} from 'jsonc-parser';
import type { FoundRow } from './found-row.js';

export const ATLAS_FORMAT = 'voltrek-atlas';
export const ATLAS_VERSION = 2;

/** Words of the first version that are others now, as they stand in its documents. */
const OF_VERSION_1: readonly (readonly [was: string, now: string])[] = [
  ['"blocks"', '"batteries"'],
  ['"block"', '"battery"'],
  ['"block-', '"battery-'],
];

/** Machines as one JSON document, one machine a line. */
export function toJson(machines: readonly Machine[]): string {
  const lines = machines.map((m) => JSON.stringify(m)).join(',\n');
  return `{"format":"${ATLAS_FORMAT}","version":${ATLAS_VERSION},"machines":[\n${lines}\n]}\n`;
}

/**
 * Reads what `toJson` writes, or wrote in its first version, laid out in any way. Machines come out unchecked; faults of the document are
 * told by line.
 */
export function parseJson(given: string): { rows: FoundRow[]; faults: RowFault[] } {
  const isFirst = /^[^\n]{0,200}"version"\s*:\s*1\b/.test(given);
  const content = isFirst
    ? OF_VERSION_1.reduce((text, [was, now]) => text.replaceAll(was, now), given)
    : given;
  const starts = lineStarts(content);
  const lineAt = (offset: number): number => lineOf(starts, offset);
  const errors: ParseError[] = [];
  const root = parseTree(content, errors, { disallowComments: true });
  const fault = (
    offset: number,
    path: string,
    message: string,
  ): { rows: FoundRow[]; faults: RowFault[] } => ({
    rows: [],
    faults: [{ line: lineAt(offset), path, message }],
  });
  const [error] = errors;
  if (!root || error) {
    const why = error ? printParseErrorCode(error.error) : 'empty';
    return fault(error?.offset ?? 0, '', `the file is cut off or is not JSON here (${why})`);
  }
  if (findNodeAtLocation(root, ['format'])?.value !== ATLAS_FORMAT)
    return fault(0, 'format', `must be "${ATLAS_FORMAT}"`);
  if (findNodeAtLocation(root, ['version'])?.value !== (isFirst ? 1 : ATLAS_VERSION))
    return fault(0, 'version', `must be ${ATLAS_VERSION}`);
  const list = findNodeAtLocation(root, ['machines']);
  if (list?.type !== 'array') return fault(0, 'machines', 'must be a list of machines');
  return {
    faults: [],
    rows: (list.children ?? []).map((node) => ({
      // The parser's own objects have no prototype, which neither schemas nor the database take.
      value: JSON.parse(JSON.stringify(getNodeValue(node))) as unknown,
      lineOf: (path) => lineAt(nodeFor(node, path).offset),
    })),
  };
}

/** The innermost node on the way along a path. */
function nodeFor(node: Node, path: string): Node {
  const keys = path.split(/[.[\]]+/).filter(Boolean);
  let at = node;
  for (const key of keys) {
    const next = findNodeAtLocation(at, [/^\d+$/.test(key) ? Number(key) : key]);
    if (!next) break;
    at = next;
  }
  return at;
}

function lineStarts(content: string): number[] {
  const starts = [0];
  for (let at = content.indexOf('\n'); at >= 0; at = content.indexOf('\n', at + 1)) starts.push(at + 1);
  return starts;
}

function lineOf(starts: readonly number[], offset: number): number {
  let low = 0;
  let high = starts.length;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (starts[middle]! <= offset) low = middle;
    else high = middle;
  }
  return low + 1;
}
