import { type Fault, faultAt, type RowFault } from '@voltrek/contracts';
import {
  createScanner,
  findNodeAtLocation,
  type Node,
  parseTree,
  type ParseError,
  type SyntaxKind,
} from 'jsonc-parser';
import type { FoundRow } from './found-row.js';
import type { TextWindow } from './text-window.js';

/** The name that a JSON file gives itself, and the list that its rows stand in. */
export interface DocumentForm {
  readonly format: string;
  readonly version: number;
  readonly list: string;
}

/** A document, a row a line, in pieces as its rows come. */
export async function* writeDocument(
  { format, version, list }: DocumentForm,
  rows: AsyncIterable<unknown> | Iterable<unknown>,
): AsyncGenerator<string> {
  yield `{"format":"${format}","version":${version},"${list}":[`;
  let before = '\n';
  for await (const row of rows) {
    yield before + JSON.stringify(row);
    before = ',\n';
  }
  yield '\n]}\n';
}

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

/** The scanner's tokens that a document is taken apart by; its own names for them are gone once compiled. */
const TOKEN: Readonly<Record<TokenName, SyntaxKind>> = {
  openBrace: 1,
  closeBrace: 2,
  openBracket: 3,
  closeBracket: 4,
  comma: 5,
  colon: 6,
  lineBreak: 14,
  blank: 15,
  end: 17,
};
type TokenName =
  | 'openBrace'
  | 'closeBrace'
  | 'openBracket'
  | 'closeBracket'
  | 'comma'
  | 'colon'
  | 'lineBreak'
  | 'blank'
  | 'end';

/** A document that cannot be read on: where, and why. */
class Unreadable extends Error {
  constructor(
    readonly line: number,
    readonly fault: Fault,
  ) {
    super(fault.message);
  }
}

/**
 * The rows of a document laid out in any way, unchecked, one by one as they are read: what stands behind the row that was asked for last has
 * not been looked at yet. Faults of the document carry their line.
 *
 * @param faults what is wrong with the document is added to these
 * @param today puts the text of a row into today's words
 */
export async function* rowsOfDocument(
  window: TextWindow,
  { format, version, list }: DocumentForm,
  faults: RowFault[],
  today: (text: string) => string = (text) => text,
): AsyncGenerator<FoundRow> {
  const reader = readerOf(window);
  const head: Record<string, unknown> = {};
  let isListed = false;
  try {
    await reader.begin();
    await reader.take(TOKEN.openBrace);
    while (reader.kind() !== TOKEN.closeBrace) {
      if (Object.keys(head).length > 0 || isListed) await reader.take(TOKEN.comma);
      const { value: name } = await reader.part();
      if (typeof name !== 'string') throw reader.garbled();
      await reader.take(TOKEN.colon);
      if (name !== list) head[name] = (await reader.part()).value;
      else {
        if (reader.kind() !== TOKEN.openBracket) throw new Unreadable(reader.line(), faultAt(list, 'list'));
        await reader.take(TOKEN.openBracket);
        isListed = true;
        for (let isFirst = true; reader.kind() !== TOKEN.closeBracket; isFirst = false) {
          if (!isFirst) await reader.take(TOKEN.comma);
          yield await reader.part(today);
        }
        await reader.take(TOKEN.closeBracket);
      }
    }
    await reader.take(TOKEN.closeBrace);
    if (reader.kind() !== TOKEN.end) throw reader.garbled();
    if (head.format !== format)
      throw new Unreadable(1, faultAt('format', 'exactly', { value: `"${format}"` }));
    if (head.version !== version) throw new Unreadable(1, faultAt('version', 'exactly', { value: version }));
    if (!isListed) throw new Unreadable(1, faultAt(list, 'list'));
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    faults.push({ line: error.line, ...error.fault });
  }
}

/** The fault of a document that is no JSON from this token on. */
const notJson = (token: string): Fault =>
  token === '' ? faultAt('', 'endsEarly') : faultAt('', 'notJson', { token: token.slice(0, 20) });

/** Reads JSON value by value. */
function readerOf(window: TextWindow) {
  let scanner = createScanner(window.text);
  const end = (): number => scanner.getTokenOffset() + scanner.getTokenLength();
  const line = (): number => window.line + scanner.getTokenStartLine();
  const garbled = (): Unreadable => new Unreadable(line(), notJson(scanner.getTokenValue()));
  /** Text that reaches to the edge of the window may go on behind it. */
  const isCut = (): boolean => !window.isLast && end() >= window.text.length;
  const step = (): void => {
    do scanner.scan();
    while (BLANK.has(scanner.getToken()));
  };
  const readOn = async (from: number): Promise<void> => {
    await window.more(from);
    scanner = createScanner(window.text);
    step();
  };
  const next = async (): Promise<void> => {
    step();
    while (isCut()) await readOn(scanner.getTokenOffset());
  };
  /** Goes to the last token of the value that begins here; false where the window ends before it does. */
  const toItsEnd = (): boolean => {
    let depth = 0;
    for (;;) {
      if (isCut()) return false;
      const kind = scanner.getToken();
      if (kind === TOKEN.end) throw garbled();
      depth += OPENS.has(kind) ? 1 : CLOSES.has(kind) ? -1 : 0;
      if (depth < 0) throw garbled();
      if (depth === 0) return true;
      step();
    }
  };
  return {
    line,
    garbled,
    begin: () => next(),
    kind: () => scanner.getToken(),
    take: async (kind: SyntaxKind): Promise<void> => {
      if (scanner.getToken() !== kind) throw garbled();
      await next();
    },
    /** The value that begins here, however deep it goes. */
    part: async (today = (text: string): string => text): Promise<FoundRow> => {
      let from = scanner.getTokenOffset();
      const fromLine = line();
      while (!toItsEnd()) {
        await readOn(from);
        from = scanner.getTokenOffset();
      }
      const text = window.text.slice(from, end());
      await next();
      return rowAt(today(text), fromLine);
    },
  };
}

const BLANK: ReadonlySet<SyntaxKind> = new Set([TOKEN.blank, TOKEN.lineBreak]);
const OPENS: ReadonlySet<SyntaxKind> = new Set([TOKEN.openBrace, TOKEN.openBracket]);
const CLOSES: ReadonlySet<SyntaxKind> = new Set([TOKEN.closeBrace, TOKEN.closeBracket]);

/** A value by its text, and the lines of its parts: those are looked for only where one is asked for. */
function rowAt(text: string, firstLine: number): FoundRow {
  const lineAt = (offset: number): number => firstLine + text.slice(0, offset).split('\n').length - 1;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    const errors: ParseError[] = [];
    treeOf(text, errors);
    const { offset = 0, length = 0 } = errors[0] ?? {};
    throw new Unreadable(lineAt(offset), notJson(text.slice(offset, offset + length)));
  }
  let tree: Node | undefined;
  return {
    value,
    lineOf: (path) => {
      if (path === '') return firstLine;
      tree ??= treeOf(text);
      return lineAt(tree ? nodeFor(tree, path).offset : 0);
    },
  };
}

/** The parts of a value by where they stand; none of one that is nested deeper than the parser can follow. */
function treeOf(text: string, errors: ParseError[] = []): Node | undefined {
  try {
    return parseTree(text, errors, { disallowComments: true });
  } catch (error) {
    if (error instanceof RangeError) return undefined;
    throw error;
  }
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
