import type { RowFault } from '@voltrek/contracts';
import {
  findNodeAtLocation,
  getNodeValue,
  type Node,
  parseTree,
  type ParseError,
  printParseErrorCode,
} from 'jsonc-parser';
import type { FoundRow } from './found-row.js';

/** What a JSON file says of itself, and the list that its rows stand in. */
export interface DocumentForm {
  readonly format: string;
  readonly version: number;
  readonly list: string;
}

/** The beginning and the end of a document; its rows stand between, a line each, parted by commas. */
export const documentEnds = ({
  format,
  version,
  list,
}: DocumentForm): readonly [head: string, tail: string] => [
  `{"format":"${format}","version":${version},"${list}":[\n`,
  '\n]}\n',
];

/** The JSON Schema of a document, from that of its rows. */
export const documentSchema = ({ format, version, list }: DocumentForm, items: object): object => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: format,
  type: 'object',
  required: ['format', 'version', list],
  properties: {
    format: { const: format },
    version: { const: version },
    [list]: { type: 'array', items },
  },
});

/** Reads a document laid out in any way. Rows come out unchecked; faults of the document are told by line. */
export function readDocument(
  content: string,
  { format, version, list }: DocumentForm,
): { rows: FoundRow[]; faults: RowFault[] } {
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
  if (findNodeAtLocation(root, ['format'])?.value !== format)
    return fault(0, 'format', `must be "${format}"`);
  if (findNodeAtLocation(root, ['version'])?.value !== version)
    return fault(0, 'version', `must be ${version}`);
  const found = findNodeAtLocation(root, [list]);
  if (found?.type !== 'array') return fault(0, list, 'must be a list');
  return {
    faults: [],
    rows: (found.children ?? []).map((node) => ({
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
