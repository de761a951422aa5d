import { build, install } from './steps.mjs';

await install();
await build({ force: true });
