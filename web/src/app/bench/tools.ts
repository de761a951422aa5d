import type { BenchToolId } from '@words/bench-words';
import type { BenchTool } from './tool';
import { capacitorTool, energyTool, equaliseTool } from './tools/banks';
import {
  ccaTool,
  chargeTool,
  drainTool,
  freezeTool,
  reviveTool,
  socTool,
  stringTool,
} from './tools/batteries';
import { leadsTool } from './tools/wiring';

/** Every calculator by its id. */
export const TOOLS: Record<BenchToolId, BenchTool> = {
  leads: leadsTool,
  capacitor: capacitorTool,
  energy: energyTool,
  equalise: equaliseTool,
  charge: chargeTool,
  drain: drainTool,
  soc: socTool,
  cca: ccaTool,
  freeze: freezeTool,
  string: stringTool,
  revive: reviveTool,
};
