import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import { parse, TYPE } from '@formatjs/icu-messageformat-parser';
import ts from 'typescript';
import { findBareWords } from './bare-words.mjs';
import { fail, root, say } from './setup.mjs';

/**
 * Holds the words against what tells them: each code that is used has words in every language, each text of words is used,
 * what a message hands over is what its words ask for, and no template says words of its own.
 */
const TELLERS = ['core/src', 'snapshot/src', 'browser/src', 'server/src', 'web/src', 'cli/src'];
const TELLING = new Set(['message', 'wordsOf', 'lose']);
const TELLS = new RegExp(`\\b(?:${[...TELLING].join('|')})\\(`);
const QUOTED = /['"`]([\w-]+(?:\.[\w-]+)+)['"`]/g;
const LANGUAGES = join(root, 'words/src/languages');

const argumentsOf = (elements, into = new Set()) => {
  for (const element of elements) {
    if ('value' in element && [TYPE.argument, TYPE.number, TYPE.select, TYPE.plural].includes(element.type))
      into.add(element.value);
    for (const option of Object.values(element.options ?? {})) argumentsOf(option.value, into);
  }
  return into;
};

const sourceOf = (path) => ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
const walk = (node, visit) => {
  visit(node);
  ts.forEachChild(node, (child) => walk(child, visit));
};

/** Texts of a language by code. */
const textsOf = (path) => {
  const texts = new Map();
  walk(sourceOf(path), (node) => {
    if (ts.isPropertyAssignment(node) && ts.isStringLiteralLike(node.initializer))
      texts.set(node.name.text, node.initializer.text);
  });
  return texts;
};

const problems = [];
const asked = new Map();
const languages = readdirSync(LANGUAGES).filter((file) => /^[a-z]{2}(?:-\w+)*\.ts$/.test(file));
for (const file of languages) {
  for (const [code, text] of textsOf(join(LANGUAGES, file))) {
    try {
      const own = argumentsOf(parse(text, { ignoreTag: true }));
      if (file === 'en.ts') asked.set(code, own);
      else
        for (const name of own)
          if (!asked.get(code)?.has(name)) problems.push(`${file}: ${code} asks for ${name}, which nothing hands over`);
    } catch (error) {
      problems.push(`${file}: ${code} is no ICU message: ${error.message}`);
    }
  }
}

const used = new Set();
const take = (path, node) => {
  const where = `${relative(root, path)}:${node.getSourceFile().getLineAndCharacterOfPosition(node.getStart()).line + 1}`;
  const [code, values] = node.arguments;
  const codes = codesOf(code);
  for (const own of codes) {
    used.add(own);
    if (!asked.has(own)) continue;
    if (values && !ts.isObjectLiteralExpression(values)) continue;
    const properties = values?.properties ?? [];
    if (properties.some(ts.isSpreadAssignment)) continue;
    const given = properties.map((property) => property.name.text);
    for (const name of asked.get(own))
      if (!given.includes(name)) problems.push(`${where}: ${own} is not given ${name}`);
    for (const name of given)
      if (!asked.get(own).has(name) && codes.length === 1) problems.push(`${where}: ${own} says nothing of ${name}`);
  }
};

/** Codes that an expression can come to. */
const codesOf = (node) => {
  if (!node) return [];
  if (ts.isStringLiteralLike(node)) return [node.text];
  if (ts.isParenthesizedExpression(node)) return codesOf(node.expression);
  if (ts.isConditionalExpression(node)) return [...codesOf(node.whenTrue), ...codesOf(node.whenFalse)];
  if (ts.isTemplateExpression(node)) {
    // A part that is worked out stands for one step of a code.
    const parts = [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)];
    const fits = new RegExp(`^${parts.map((part) => part.replaceAll('.', '\\.')).join('[^.]+')}$`);
    return [...asked.keys()].filter((code) => fits.test(code));
  }
  return [];
};

const isTelling = (node) =>
  ts.isCallExpression(node) && ts.isIdentifier(node.expression) && TELLING.has(node.expression.text);

/** What templates say themselves: an expression of theirs reads as one of TypeScript. */
const callsInTemplates = (text) =>
  [...text.matchAll(/\bwordsOf\(/g)].flatMap(({ index }) => {
    const { statements } = ts.createSourceFile('a.ts', text.slice(index, index + 2_000), ts.ScriptTarget.Latest, true);
    let expression = statements.at(0)?.expression;
    // What follows the call in the template may read as more of the expression.
    while (expression && !isTelling(expression))
      expression = expression.left ?? expression.expression ?? expression.condition;
    return expression ? [expression] : [];
  });

const mayTell = (text) => TELLS.test(text) || [...text.matchAll(QUOTED)].some(([, code]) => asked.has(code));

for (const folder of TELLERS.map((path) => join(root, path)).filter(existsSync)) {
  for (const entry of readdirSync(folder, { recursive: true })) {
    if (!/\.(?:ts|html)$/.test(entry) || entry.endsWith('.spec.ts')) continue;
    const path = join(folder, entry);
    const text = readFileSync(path, 'utf8');
    for (const call of callsInTemplates(text)) take(path, call);
    // Most files tell nothing, and are not read as TypeScript.
    if (entry.endsWith('.html') || !mayTell(text)) continue;
    walk(sourceOf(path), (node) => {
      // A table may hold the code, and another place tell it.
      if (ts.isStringLiteralLike(node) && asked.has(node.text)) used.add(node.text);
      if (isTelling(node)) take(path, node);
    });
  }
}
for (const code of asked.keys()) if (!used.has(code)) problems.push(`en.ts: nothing says ${code}`);
if (problems.length > 0) fail(`The words and what tells them differ.\n${problems.join('\n')}`);
const bare = findBareWords();
if (bare.problems.length > 0) fail(`Templates say what another language could not.\n${bare.problems.join('\n')}`);
say(`words: no bare ones in ${bare.templates} templates`);
say(`words: ${asked.size} texts in ${languages.length === 1 ? 'one language' : `${languages.length} languages`}`);
