import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, must, ROOT } from './steps.mjs';

/** Writes the table of defaults in docs/model.md from the core: `npm run model-doc`. */
await install();
await build();
const { PARAMETERS } = await import('../core/dist/src/model/index.js');
const file = join(ROOT, 'docs', 'model.md');
const rows = PARAMETERS.map(
  ({ id, name, value, low, high, unit, reason }) =>
    `| \`${id}\` | ${name} | ${value ?? ''} | ${low} to ${high} | ${unit} | ${reason} |`,
);
const table = [
  '| id | what | default | plausible | unit | why |',
  '| --- | --- | --- | --- | --- | --- |',
  ...rows,
];
const text = readFileSync(file, 'utf8');
const [before] = text.split('<!-- table -->');
writeFileSync(file, `${before}<!-- table -->\n\n${table.join('\n')}\n`);
await must('npx', ['prettier', '--write', file], { quiet: true });
