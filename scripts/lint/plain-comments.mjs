/** An ESLint rule: a comment names its actor first, so no comment begins with a clause. */
const OPENINGS = /^[\s*]*(What|Whatever|Whoever|Whose|Where|Which|Who|That|Those)\b[^?]*$/;

export const plainComments = {
  meta: {
    type: 'suggestion',
    schema: [],
    messages: { clause: 'A comment begins with its actor or a verb, not with "{{word}}".' },
  },
  create: (context) => ({
    Program() {
      let line = null;
      for (const comment of context.sourceCode.getAllComments()) {
        // Lines of one comment follow each other: only the first begins it.
        const isNext = comment.type === 'Line' && line === comment.loc.start.line - 1;
        line = comment.type === 'Line' ? comment.loc.end.line : null;
        const [, word] = OPENINGS.exec(comment.value.split(/[.:;]/)[0]) ?? [];
        if (word && !isNext) context.report({ loc: comment.loc, messageId: 'clause', data: { word } });
      }
    },
  }),
};
