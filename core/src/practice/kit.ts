import type { Tool } from '../diagnosis/index.js';
import { toolsOfKit } from '../job/index.js';
import { type KitItem, USUAL_KIT } from '../sources/index.js';

/** The van of the one who practises lends this. */
const DONOR: KitItem = {
  kind: 'donor',
  id: 'donor',
  name: 'Service van',
  modelId: 'unknown-van',
  systemVolts: 12,
  battery: { chemistry: 'agm', capacityAh: 92, ccaAmps: 850, ccaStandard: 'EN' },
  soc: 0.95,
  alternatorSpareAmps: 80,
};
/** The kit of the van in practice. */
export const PRACTICE_KIT: readonly KitItem[] = [DONOR, ...Object.values(USUAL_KIT)];
/** The tools in it. */
export const PRACTICE_TOOLS: readonly Tool[] = toolsOfKit(PRACTICE_KIT);
