import type { Machine } from '@voltrek/core';
import { CLASS_WORDS } from '../shared/words/words';

/** Machines whose maker, model, class or block place hold every typed word. */
export function searchMachines(machines: readonly Machine[], typed: string): Machine[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return machines.filter((m) => {
    const text = [
      m.maker,
      m.model,
      CLASS_WORDS[m.machineClass],
      `${m.systemVolts} v`,
      ...m.blocks.map((b) => b.place),
    ]
      .join(' ')
      .toLowerCase();
    return words.every((word) => text.includes(word));
  });
}
