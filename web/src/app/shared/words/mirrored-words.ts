import { mirroredWords as mirroredEnglish } from '@voltrek/contracts/words';
import { language } from '../model/language';

/** Stems of the two poles in German, with their endings and what is joined to them. */
const OTHER: Readonly<Record<string, string>> = {
  rot: 'schwarz',
  schwarz: 'rot',
  plus: 'minus',
  minus: 'plus',
};
const POLES =
  /(?<![a-zäöüß])(rot|schwarz|plus|minus)(?=(?:e[nmrs]?)?(?![a-zäöüß])|pol|klemme|kabel|anschluss)/gi;

const mirroredGerman = (words: string): string =>
  words.replace(POLES, (word) => {
    const other = OTHER[word.toLowerCase()]!;
    return word === word.toLowerCase() ? other : other.charAt(0).toUpperCase() + other.slice(1);
  });

/**
 * Returns our own words for a machine whose plus is on its body: red says black, plus says minus. For words alone: the name that the atlas
 * gives a point stays.
 */
export const mirroredWords = (words: string): string =>
  language() === 'de' ? mirroredGerman(words) : mirroredEnglish(words);
