import { packAndCheck } from './pack.js';

/** `COPY FILE`: packs and checks; what was found is written as one line of JSON. */
const [copy, file] = process.argv.slice(2);
process.stdout.write(JSON.stringify(await packAndCheck(copy!, file!)));
