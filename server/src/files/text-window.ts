import { HttpProblem } from '../http/problem.js';

/** Text that is read on at once, in characters: some hundred rows of a file. */
const PIECE_CHARS = 256 * 1024;

/** The text of a file, piece by piece. @throws HttpProblem 415 when it is not UTF-8 text */
export async function* piecesOf(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const decoded = (part?: Uint8Array): string => {
    let text: string;
    try {
      text = decoder.decode(part, { stream: part !== undefined });
    } catch {
      text = '\0';
    }
    if (!text.includes('\0')) return text;
    throw new HttpProblem(415, 'notUtf8');
  };
  for await (const part of bytes) yield decoded(part);
  yield decoded();
}

/** A part of a text that is too long to be held: what is being looked at, and more of it as it is wanted. */
export class TextWindow {
  private held = '';
  private firstLine = 1;
  private isDone = false;
  private lastChar = '';
  private readonly pieces: AsyncIterator<string>;

  /** @param least characters that are read on at once, where there are so many */
  constructor(
    pieces: AsyncIterable<string>,
    private readonly least = PIECE_CHARS,
  ) {
    this.pieces = pieces[Symbol.asyncIterator]();
  }

  get text(): string {
    return this.held;
  }

  /** The line that the window begins in, from 1. */
  get line(): number {
    return this.firstLine;
  }

  /** Whether it reaches to the end of the text. */
  get isLast(): boolean {
    return this.isDone;
  }

  /** Whether the text, read to its end, ends with this character. */
  endsWith(char: string): boolean {
    return this.lastChar === char;
  }

  /**
   * Lets go of what stands before a place, and reads on: at least as much again as is kept. So a row longer than the window is read about
   * twice at most.
   */
  async more(from: number): Promise<void> {
    for (let at = this.held.indexOf('\n'); at >= 0 && at < from; at = this.held.indexOf('\n', at + 1))
      this.firstLine++;
    const parts = [this.held.slice(from)];
    let missing = Math.max(this.least, parts[0]!.length);
    while (missing > 0 && !this.isDone) {
      const next = await this.pieces.next();
      if (next.done === true) {
        this.isDone = true;
        break;
      }
      parts.push(next.value);
      missing -= next.value.length;
      this.lastChar = next.value.at(-1) ?? this.lastChar;
    }
    this.held = parts.join('');
  }
}

/** Whether a text is JSON by how it begins; reads as far as that takes. */
export async function beginsAsJson(window: TextWindow): Promise<boolean> {
  while (!window.isLast && window.text.trimStart() === '') await window.more(0);
  return window.text.trimStart().startsWith('{');
}
