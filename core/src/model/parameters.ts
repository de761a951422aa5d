import '../battery/index.js';
import '../capacitor/index.js';
import '../charging/index.js';
import '../circuit/index.js';
import '../crank/index.js';
import '../engine/index.js';
import '../hookup/index.js';
import '../leads/index.js';
import '../plan/index.js';
import '../reach/index.js';
import '../sources/index.js';
import { parameters } from '../quantities/index.js';

/** Every default of the model with its plausible range and the reason for its value. The files that use them declare them. */
export const PARAMETERS = parameters();
