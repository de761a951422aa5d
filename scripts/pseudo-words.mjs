import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import ts from 'typescript';
import { ROOT } from './steps.mjs';

/** Stand before and behind every word of the language that nobody speaks: what is seen without them came from elsewhere. */
export const MARKS = ['\u27e6', '\u27e7'];

const FROM = join(ROOT, 'web/src/app/shared/words');
const TO = join(ROOT, 'web/out/words');

/** Writes the word files once more with every word marked, as a second language would stand beside them. */
export function writePseudoWords() {
  rmSync(TO, { recursive: true, force: true });
  for (const name of readdirSync(FROM, { recursive: true })) {
    if (name.endsWith('.spec.ts')) continue;
    const to = join(TO, name);
    if (!name.endsWith('.ts')) mkdirSync(to, { recursive: true });
    else {
      mkdirSync(dirname(to), { recursive: true });
      writeFileSync(to, marked(readFileSync(join(FROM, name), 'utf8'), join(FROM, name), to));
    }
  }
}

function marked(source, from, to) {
  const file = ts.createSourceFile(from, source, ts.ScriptTarget.Latest, true);
  const edits = [];
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) {
      const { moduleSpecifier } = node;
      // Text outside the folder is the same in every language.
      if (moduleSpecifier?.text.startsWith('../') && !inside(from, moduleSpecifier.text))
        edits.push([
          moduleSpecifier,
          `'${relative(dirname(to), resolve(dirname(from), moduleSpecifier.text))}'`,
        ]);
      return;
    }
    if (ts.isTypeNode(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      if (isTold(node)) edits.push([node, `\`${MARKS[0]}${node.getText().slice(1, -1)}${MARKS[1]}\``]);
      return;
    }
    if (ts.isTemplateExpression(node) && (isTold(node) || ts.isTaggedTemplateExpression(node.parent))) {
      edits.push([node.head, `\`${MARKS[0]}${node.head.rawText ?? node.head.text}\${`]);
      const { literal } = node.templateSpans.at(-1);
      edits.push([literal, `}${literal.rawText ?? literal.text}${MARKS[1]}\``]);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return edits
    .sort((a, b) => b[0].getStart() - a[0].getStart())
    .reduce((text, [node, put]) => text.slice(0, node.getStart()) + put + text.slice(node.getEnd()), source);
}

const inside = (from, path) => resolve(dirname(from), path).startsWith(FROM);
/** Properties of word tables that hold a code, not a word. */
const CODES = new Set(['tone', 'icon', 'kind', 'code', 'unit', 'key', 'id']);

/** True for a value that is handed on to a screen; not for one that is compared, looked up by, or passed on. */
function isTold(node) {
  const { parent } = node;
  if (ts.isConditionalExpression(parent)) return parent.condition !== node && isTold(parent);
  if (ts.isBinaryExpression(parent))
    return ['+', '??', '||'].includes(parent.operatorToken.getText()) && isTold(parent);
  // A list of codes.
  if (ts.isArrayLiteralExpression(parent) && ts.isAsExpression(parent.parent) && /^[a-z-]+$/.test(node.text))
    return false;
  if (
    ts.isParenthesizedExpression(parent) ||
    ts.isAsExpression(parent) ||
    ts.isArrayLiteralExpression(parent)
  )
    return isTold(parent);
  if (ts.isPropertyAssignment(parent))
    return parent.initializer === node && !CODES.has(parent.name.getText());
  return (
    ts.isReturnStatement(parent) ||
    ts.isArrowFunction(parent) ||
    ts.isVariableDeclaration(parent) ||
    ts.isTemplateSpan(parent)
  );
}

if (process.argv[1] === new URL(import.meta.url).pathname) writePseudoWords();
