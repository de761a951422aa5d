import { type Machine, MACHINE_CLASSES, type MachineClass } from '../machine/index.js';

/** Entries that stand for a whole class carry ids of this form. */
const TEMPLATE_PREFIX = 'unknown-';
export const templateId = (machineClass: MachineClass): string => `${TEMPLATE_PREFIX}${machineClass}`;
/** True for an entry that stands for its class: nobody has looked at the machine itself. */
export const isTemplate = ({ id }: Pick<Machine, 'id'>): boolean => id.startsWith(TEMPLATE_PREFIX);
/** Returns the class that an entry of this id stands for; null where it is a machine of its own. */
export const classOfTemplate = (id: string): MachineClass | null =>
  MACHINE_CLASSES.find((machineClass) => id === templateId(machineClass)) ?? null;
