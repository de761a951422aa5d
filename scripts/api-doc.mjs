import { writeFileSync } from 'node:fs';
import { answerSchemas } from './answer-schemas.mjs';
import { build, install, must, ROOT } from './steps.mjs';

/** Writes the schema of every answer of the server from its TypeScript types: `npm run api-doc`. */
await install();
await build();
const file = `${ROOT}/server/openapi/answers.json`;
writeFileSync(file, JSON.stringify(await answerSchemas(ROOT)));
await must('npx', ['prettier', '--write', file], { quiet: true });
