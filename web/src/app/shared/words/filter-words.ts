import { type JobFilter, type JobTrait, NO_VALUE } from '@voltrek/contracts';
import type { OverrideRule, StartedBy } from '@voltrek/core/job';
import type { MachineClass } from '@voltrek/core/machine';
import type { Suspect } from '@voltrek/core/diagnosis';
import type { VerdictKind } from '@voltrek/core/verdict';
import { dateText } from '../model/dates';
import { hazardWayOutOf, isHazardCode } from './hazard-words';
import { KIT_KIND_WORDS } from './kit-words';
import { asBeginning } from './numbers';
import { overrideName } from './override-words';
import { FIGURES_PAGE as T } from './screens/figures';
import { SUSPECT_WORDS, VERDICT_WORDS } from './verdict-words';
import { CLASS_WORDS } from './words';

/** Names of people, vans and kit by their ids. */
export interface NamesById {
  person(id: string): string;
  van(id: string): string;
  kit(id: string): string;
}

function startedByWords(by: StartedBy): string {
  if (by === 'rolled') return T.rolled;
  return by === 'itself' ? T.itself : KIT_KIND_WORDS[by];
}

/** Names one value of a trait; null is a job that has none. */
export function traitText(trait: JobTrait, value: string | null, names: NamesById): string {
  const isNone = value === null || value === NO_VALUE;
  switch (trait) {
    case 'vanId':
      return names.van(value ?? '');
    case 'by':
      return names.person(value ?? '');
    case 'machineClass':
      return asBeginning(CLASS_WORDS[value as MachineClass]);
    case 'startedBy':
      return asBeginning(isNone ? T.notStarted : startedByWords(value as StartedBy));
    case 'suspect':
      return asBeginning(isNone ? T.noPart : SUSPECT_WORDS[value as Suspect]);
    case 'verdict':
      return asBeginning(isNone ? T.noVerdict : VERDICT_WORDS[value as VerdictKind].name);
  }
}

/** Names a rule or a hazard that was overridden: a hazard by the act against it. */
export const overriddenText = (key: string): string =>
  isHazardCode(key) ? hazardWayOutOf(key) : overrideName(key as OverrideRule);

/** Words for one part of a filter. */
export function filterText(part: keyof JobFilter, filter: JobFilter, names: NamesById): string {
  const value = filter[part] ?? '';
  switch (part) {
    case 'from':
      return T.closedFrom({ at: dateText(value, 'date') });
    case 'to':
      return T.closedTo({ at: dateText(Date.parse(value) - 1, 'date') });
    case 'kit':
      return T.kitHelped({ kit: names.kit(value) });
    case 'overridden':
      return overriddenText(value);
    case 'runningFrom':
      return T.ranFrom({ from: Number(value) });
    case 'returned':
      return T.returned;
    default:
      return traitText(part, value, names);
  }
}
