import type { Machine, MachineClass } from '../machine/index.js';

/** Entries that stand for a whole class carry ids of this form. */
const TEMPLATE_PREFIX = 'unknown-';
export const templateId = (machineClass: MachineClass): string => `${TEMPLATE_PREFIX}${machineClass}`;
/** True for an entry that stands for its class: nobody has looked at the machine itself. */
export const isTemplate = ({ id }: Pick<Machine, 'id'>): boolean => id.startsWith(TEMPLATE_PREFIX);
