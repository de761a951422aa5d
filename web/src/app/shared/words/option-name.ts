import { withinSentence } from './numbers';
import type { RankedOption } from '@voltrek/core/plan';
import type { KitItem } from '@voltrek/core/sources';
import { nameOf } from './figures';
import { batteryWord } from './words';
import { OPTION_NAME as T } from './screens/job';

/** Names an option by its id, or a piece of kit by its own. */
export const namesIn =
  (options: readonly RankedOption[], kit: readonly KitItem[]) =>
  (id: string): string => {
    const ranked = options.find((o) => o.option.id === id);
    return ranked ? optionName(ranked, kit) : nameOf(kit, id);
  };

/** The option's name: source, lead set, and where it goes when not across the whole. */
export function optionName({ option }: Pick<RankedOption, 'option'>, kit: readonly KitItem[]): string {
  const item = (id: string | null): KitItem | undefined => kit.find((k) => k.id === id);
  const source = item(option.sourceId);
  const leads = item(option.leadSetId);
  const { across } = option;
  const parts = [
    source?.name ?? '',
    leads ? withinSentence(leads.name) : '',
    source?.kind === 'lead-pack' && source.outputs.length > 1
      ? T.atV({ outputVolts: option.outputVolts })
      : '',
    source?.kind === 'spare-batteries' && source.count > 1
      ? option.outputVolts === 24
        ? T.bothInSeries
        : T.oneOfThem
      : '',
    across.kind === 'battery' ? T.across({ battery: batteryWord(across.battery) }) : '',
  ];
  return parts.filter(Boolean).join(', ');
}
