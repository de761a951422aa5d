import { PHONE } from './phone';

describe('the query of a phone', () => {
  it('is the one that the style sheets ask', () => {
    const queries = Array.from(document.styleSheets).flatMap((sheet) =>
      Array.from(sheet.cssRules).flatMap((rule) =>
        rule instanceof CSSMediaRule && rule.conditionText.includes('portrait') ? rule.conditionText : [],
      ),
    );
    expect([...new Set(queries)]).toEqual([PHONE]);
  });
});
