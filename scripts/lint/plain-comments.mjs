/** ESLint rules of plain English: a comment names its actor first, and a sentence holds one fact. */
const OPENINGS = /^[\s*]*(What|Whatever|Whoever|Whose|Where|Which|Who|That|Those)\b[^?]*$/;
/** Words of a sentence, or of a part of one that a colon or semicolon ends. */
const WORDS_MAX = 20;

/** A comment that stands in one piece: lines of `//` below each other are one. */
function commentsOf(sourceCode) {
  const whole = [];
  for (const { type, loc, value } of sourceCode.getAllComments()) {
    const last = whole.at(-1);
    if (type === 'Line' && last?.type === 'Line' && last.loc.end.line === loc.start.line - 1) {
      last.text += `\n${value}`;
      last.loc = { start: last.loc.start, end: loc.end };
    } else whole.push({ type, loc, text: value });
  }
  return whole;
}

/** The sentences of a comment, without its examples. */
const sentencesOf = (text) =>
  text
    .replace(/^\s*\*\s?/gm, '')
    .replace(/@example[\s\S]*$/, '')
    .split(/(?<=[.;:!?])\s+|\n\s*\n|\n\s*(?=[-@])/);

export const plainComments = {
  meta: {
    type: 'suggestion',
    schema: [],
    messages: {
      clause: 'A comment begins with its actor or a verb, not with "{{word}}".',
      long: 'This sentence has {{words}} words: one fact, and at most 20.',
    },
  },
  create: (context) => ({
    Program() {
      for (const { loc, text } of commentsOf(context.sourceCode)) {
        const [, word] = OPENINGS.exec(text.split(/[.:;]/)[0]) ?? [];
        if (word) context.report({ loc, messageId: 'clause', data: { word } });
        for (const sentence of sentencesOf(text)) {
          const words = sentence.trim().split(/\s+/).length;
          if (words > WORDS_MAX) context.report({ loc, messageId: 'long', data: { words } });
        }
      }
    },
  }),
};
