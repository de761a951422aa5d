import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Runs ngspice on a netlist: every saved vector by its name, such as `time` or `v(casualty_starter)`. */
export function runNgspice(netlist: string): Map<string, number[]> {
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-spice-'));
  try {
    const file = join(folder, 'crank.cir');
    const raw = join(folder, 'crank.raw');
    writeFileSync(file, netlist);
    execFileSync('ngspice', ['-b', '-r', raw, file], {
      env: { ...process.env, SPICE_ASCIIRAWFILE: '1' },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    return parseRaw(readFileSync(raw, 'utf8'));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The plain-text raw file: a header that names the vectors, then one value a line, points in order. */
function parseRaw(text: string): Map<string, number[]> {
  const [header, values] = text.split(/^Values:\s*$/m);
  if (!header || !values) throw new Error('ngspice wrote no values');
  const names = [...header.matchAll(/^\t\d+\t(\S+)\t\S+/gm)].map((m) => m[1]!);
  const lists = names.map((): number[] => []);
  const figures = values.trim().split(/\s+/);
  const perPoint = names.length + 1;
  for (let i = 0; i + perPoint <= figures.length; i += perPoint) {
    names.forEach((_, n) => lists[n]!.push(Number(figures[i + 1 + n])));
  }
  return new Map(names.map((name, i) => [name, lists[i]!]));
}

/** The value of a vector at a moment, between its points. */
export function sampleAt(times: readonly number[], values: readonly number[], seconds: number): number {
  let low = 0;
  let high = times.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= seconds) low = middle;
    else high = middle;
  }
  const span = times[high]! - times[low]!;
  const share = span === 0 ? 0 : (seconds - times[low]!) / span;
  return values[low]! + (values[high]! - values[low]!) * share;
}
