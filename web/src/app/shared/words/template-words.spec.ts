import { type Machine, MACHINE_CLASSES } from '@voltrek/core/machine';
import {
  machineFrom,
  type MachineFinding,
  TEMPLATE_CODES,
  templateOf,
  typicalOf,
} from '@voltrek/core/template';
import { machineSummary } from '@voltrek/contracts/search-text';
import first from '../../../messages/de/app.json';
import english from '../../../messages/en/app.json';
import { whole } from '../../../messages/de/whole';
import { whole as wholeEnglish } from '../../../messages/en/whole';
import { showMessages } from './messages-of';
import { inWords, summaryInWords } from './template-words';

/** Every text of an entry that a screen shows. */
const textsOf = ({ batteries, points, resets, cautions, never, model }: Machine): string[] => [
  ...batteries.map(({ place }) => place),
  ...points.flatMap(({ label, steps }) => [label, ...steps]),
  ...[...resets, ...cautions, ...never, model],
];

describe('an entry for a class', () => {
  afterEach(() => {
    showMessages({ ...english, ...wholeEnglish });
  });

  it('shows no code, in either language', () => {
    const languages = { en: { ...english, ...wholeEnglish }, de: { ...first, ...whole } };
    for (const [language, messages] of Object.entries(languages)) {
      showMessages(messages);
      for (const machineClass of MACHINE_CLASSES) {
        const coded = templateOf(machineClass);
        const codes = textsOf(coded);
        const shown = textsOf(inWords(coded));
        expect(shown.length).toBe(codes.length);
        expect(shown.filter((text) => text === '' || codes.includes(text)))
          .withContext(`${language} ${machineClass}`)
          .toEqual([]);
        expect(codes).not.toContain(summaryInWords(machineSummary(coded, 'found-once')).places);
      }
    }
  });

  it('follows the language on screen, where an entry of a finder keeps its own words', () => {
    const boat = templateOf('boat');
    expect(inWords(boat).batteries[0]!.place).toBe('stern locker');
    showMessages({ ...first, ...whole });
    expect(inWords(boat).batteries[0]!.place).toBe('Heckkasten');
    const finding: MachineFinding = {
      ...{ id: 'found', maker: 'Test', model: 'Test', machineClass: 'boat' as const },
      ...typicalOf('boat'),
      ...{ placeId: 'stern-locker', layout: 'positive-left' as const, redPost: true },
    };
    const found = machineFrom(finding, TEMPLATE_CODES);
    expect(inWords(found)).toBe(found);
  });
});
