import { readFileSync } from 'node:fs';
import { answer } from './command.js';

const STANDARD_INPUT = 0;
const { out, err, code } = answer(process.argv.slice(2), () => readFileSync(STANDARD_INPUT, 'utf8'));
process.stdout.write(out);
process.stderr.write(err);
process.exitCode = code;
