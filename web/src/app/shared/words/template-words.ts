import type { Machine } from '@voltrek/core/machine';
import { classOfTemplate, placesOf, templateOf, type TemplateWords } from '@voltrek/core/template';
import type { MachineSummary } from '@voltrek/contracts';
import { LIKELY_PLACE_WORDS } from './atlas-words';
import { areLoaded, messagesOf } from './messages-of';
import { modelNameOf } from './model-name';

const ENTRY = messagesOf('templateEntry');

/** Returns the words of an entry that is made for a class, in the language on screen. */
export const templateWords = (): TemplateWords => ({ ...ENTRY, place: LIKELY_PLACE_WORDS });

/** The language is loaded with the first page but for these words: until then codes stand. */
const classOf = (id: string) => (areLoaded('templateEntry') ? classOfTemplate(id) : null);

/** Returns a machine in the language on screen. An entry for a class has codes in place of words; any other keeps its finder's words. */
export function inWords(machine: Machine): Machine {
  const machineClass = classOf(machine.id);
  if (!machineClass) return machine;
  return { ...templateOf(machineClass, templateWords()), maker: '', model: modelNameOf(machine) };
}

/** Returns a found machine in the language on screen. */
export function summaryInWords(found: MachineSummary): MachineSummary {
  const machineClass = classOf(found.id);
  if (!machineClass) return found;
  const [likeliest] = placesOf(machineClass);
  return {
    ...found,
    maker: '',
    model: modelNameOf(found),
    places: LIKELY_PLACE_WORDS[likeliest!.id].name,
  };
}
