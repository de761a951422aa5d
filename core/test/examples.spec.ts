import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEFAULT_RULES } from '../src/rules/index.js';

const SOURCES = fileURLToPath(new URL('../../src', import.meta.url));
/** `@example CODE // => VALUE`: the value to the digits that it is written with. */
const EXAMPLE = /^ \* @example (?<code>.+?) \/\/ => (?<value>.+)$/gm;

interface Example {
  readonly path: string;
  readonly code: string;
  readonly value: string;
}

/** Every checked example of the core. */
function examples(): Example[] {
  return readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts'))
    .flatMap((path) =>
      [...readFileSync(join(SOURCES, path), 'utf8').matchAll(EXAMPLE)].map(({ groups }) => ({
        path,
        code: groups!.code!,
        value: groups!.value!,
      })),
    );
}

/** Evaluates an expression with the public names of a file and of its floor. */
const evaluate = (code: string, names: Readonly<Record<string, unknown>>): unknown =>
  new Function(...Object.keys(names), `return (${code});`)(...Object.values(names));

const namesIn = (path: string): Promise<Readonly<Record<string, unknown>>> =>
  import(`../src/${path}`) as Promise<Readonly<Record<string, unknown>>>;

/** A figure rounded to the digits of the written one. */
function asWritten(found: unknown, value: string): unknown {
  if (typeof found !== 'number' || !/^-?[\d.]+$/.test(value)) return found;
  return Number(found.toFixed(value.split('.')[1]?.length ?? 0));
}

describe('the examples in the core', () => {
  const all = examples();

  it('are many', () => expect(all.length).toBeGreaterThan(100));

  for (const { path, code, value } of all)
    it(`${code} is ${value}`, async () => {
      const floor = await namesIn(`${path.split('/')[0]!}/index.js`);
      const names = { DEFAULT_RULES, ...floor, ...(await namesIn(path.replace(/ts$/, 'js'))) };
      expect(asWritten(evaluate(code, names), value)).toEqual(evaluate(value, {}));
    });
});
