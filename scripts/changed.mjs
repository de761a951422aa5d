import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { ROOT } from './steps.mjs';

/** Folders whose test files import what they test. */
const TESTED = ['core', 'contracts', 'instruments', 'server', 'web'];
const IMPORT = /(?:from|import)\s*\(?\s*'(?<name>[^']+)'/g;

/** Every source file of a folder. */
function sourcesOf(folder) {
  return readdirSync(join(ROOT, folder), { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile() && e.name.endsWith('.ts'))
    .map((e) => join(e.parentPath, e.name))
    .filter((path) => !/\/(node_modules|dist|out|\.angular)\//.test(path));
}

/** The file that an import names; null for a package of others. */
function resolved(from, name) {
  const asFile = (path) =>
    [path.replace(/\.js$/, '.ts'), `${path}.ts`, join(path, 'index.ts')].find(
      (p) => existsSync(p) && p.endsWith('.ts'),
    );
  if (name.startsWith('.')) return asFile(resolve(dirname(from), name));
  if (name.startsWith('@words/')) return asFile(join(ROOT, 'web/src/app/shared/words', name.slice(7)));
  const own = /^@voltrek\/(?<part>\w+)(?:\/(?<floor>.+))?$/.exec(name)?.groups;
  return own ? asFile(join(ROOT, own.part, 'src', own.floor ?? 'index')) : null;
}

/** For each file those that it imports, itself or through others. */
function reachOf() {
  const imports = new Map();
  for (const path of TESTED.flatMap(sourcesOf)) {
    const names = [...readFileSync(path, 'utf8').matchAll(IMPORT)].map((m) => m.groups.name);
    imports.set(path, names.map((name) => resolved(path, name)).filter(Boolean));
  }
  return (start) => {
    const seen = new Set([start]);
    const open = [start];
    for (let path = open.pop(); path; path = open.pop())
      for (const next of imports.get(path) ?? []) if (!seen.has(next)) (open.push(next), seen.add(next));
    return seen;
  };
}

/** Files that differ from a commit, and those that are new. */
function changedSince(commit) {
  const git = (...args) =>
    execFileSync('git', args, { cwd: ROOT, encoding: 'utf8' }).split('\n').filter(Boolean);
  return [...git('diff', '--name-only', commit), ...git('ls-files', '--others', '--exclude-standard')];
}

/**
 * Finds the tests that a change can have broken, by what each imports.
 *
 * @param commit what the work tree is held against
 * @returns spec files by workspace, relative to it; the interface tests that were changed themselves, and whether anything of the product was
 */
export function testsOfChange(commit) {
  const changed = changedSince(commit);
  const paths = new Set(changed.map((path) => join(ROOT, path)));
  const reach = reachOf();
  const specs = Object.fromEntries(
    TESTED.map((part) => [
      part,
      sourcesOf(part)
        .filter((path) => path.endsWith('.spec.ts') && [...reach(path)].some((p) => paths.has(p)))
        .map((path) => relative(join(ROOT, part), path)),
    ]),
  );
  return {
    specs,
    interface: changed.filter((path) => path.startsWith('e2e/tests/')).map((path) => path.slice(4)),
    isProduct: changed.some((path) => /^(core|contracts|instruments|server|web|demo)\//.test(path)),
  };
}
