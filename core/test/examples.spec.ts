import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEFAULT_RULES } from '../src/rules/index.js';

const SOURCES = fileURLToPath(new URL('../../src', import.meta.url));
/** `@example CODE // => VALUE`: the value to the digits that it is written with. */
const EXAMPLE = /^ \* @example (?<code>.+?) \/\/ => (?<value>.+)$/gm;

interface Example {
  readonly floor: string;
  readonly code: string;
  readonly value: string;
}

/** Every checked example of the core. */
function examples(): Example[] {
  return readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.ts'))
    .flatMap((path) =>
      [...readFileSync(join(SOURCES, path), 'utf8').matchAll(EXAMPLE)].map(({ groups }) => ({
        floor: path.split('/')[0]!,
        code: groups!.code!,
        value: groups!.value!,
      })),
    );
}

/** Evaluates an expression with the public names of a floor. */
const evaluate = (code: string, names: Readonly<Record<string, unknown>>): unknown =>
  new Function(...Object.keys(names), `return (${code});`)(...Object.values(names));

/** A figure rounded to the digits of the written one. */
function asWritten(found: unknown, value: string): unknown {
  if (typeof found !== 'number' || !/^-?[\d.]+$/.test(value)) return found;
  return Number(found.toFixed(value.split('.')[1]?.length ?? 0));
}

describe('the examples in the core', () => {
  const all = examples();

  it('are many', () => expect(all.length).toBeGreaterThan(100));

  for (const { floor, code, value } of all)
    it(`${code} is ${value}`, async () => {
      const own = (await import(`../src/${floor}/index.js`)) as Readonly<Record<string, unknown>>;
      const names = { DEFAULT_RULES, ...own };
      expect(asWritten(evaluate(code, names), value)).toEqual(evaluate(value, {}));
    });
});
