const OTHER: Readonly<Record<string, string>> = {
  red: 'black',
  black: 'red',
  reds: 'blacks',
  blacks: 'reds',
  plus: 'minus',
  minus: 'plus',
  positive: 'negative',
  negative: 'positive',
};
const POLES = new RegExp(`\\b(${Object.keys(OTHER).join('|')})\\b`, 'gi');

/**
 * Our own words for a machine whose plus is on its body: red says black, plus says minus. For words alone: what the atlas calls a point is
 * its own name, and stays.
 */
export const mirroredWords = (words: string): string =>
  words.replace(POLES, (word) => {
    const other = OTHER[word.toLowerCase()]!;
    return word === word.toLowerCase() ? other : other.charAt(0).toUpperCase() + other.slice(1);
  });
