import { readFileSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import * as angular from '@angular/compiler';
import ts from 'typescript';
import { root } from './setup.mjs';

/**
 * Finds what templates would say in words of their own: a text of several words, or that joins others with a space, in an
 * expression and by no code. Texts between tags and in attributes go by `i18n`, which a rule of the linter holds.
 */
const FOLDER = join(root, 'web/src');
/** What is given as a code or a name, not as words. */
const BY_NAME = new Set(['wordsOf', 'moment']);
const isSaid = (text) => /\p{L}{2,} \p{L}|\p{L}{2,}[,:]? $|^,? \p{L}{2,}/u.test(text);

class BareWords extends angular.RecursiveAstVisitor {
  found = [];
  visitLiteralPrimitive({ value }) {
    if (typeof value === 'string' && isSaid(value)) this.found.push(value);
  }
  visitBinary(node, context) {
    // What is compared with is a name.
    if (!/^[!=]==?$/.test(node.operation)) super.visitBinary(node, context);
  }
  visitCall(node, context) {
    if (!BY_NAME.has(node.receiver.name)) super.visitCall(node, context);
    else for (const own of node.args) if (!(own instanceof angular.LiteralPrimitive)) own.visit(this, context);
  }
}

function bareWordsIn(template, path) {
  const visitor = new BareWords();
  const seen = new Set();
  const walk = (node) => {
    if (typeof node !== 'object' || node === null || seen.has(node)) return;
    seen.add(node);
    if (node instanceof angular.AST) (node instanceof angular.ASTWithSource ? node.ast : node).visit(visitor, null);
    else for (const [name, own] of Object.entries(node)) if (!/span|i18n/i.test(name)) walk(own);
  };
  walk(angular.parseTemplate(template, path).nodes);
  return visitor.found;
}

const HOLDS_TEMPLATE = /\btemplate:/;

function templatesIn(path) {
  const text = readFileSync(path, 'utf8');
  if (path.endsWith('.html')) return [text];
  if (!HOLDS_TEMPLATE.test(text)) return [];
  const found = [];
  const visit = (node) => {
    if (ts.isPropertyAssignment(node) && node.name.text === 'template' && ts.isStringLiteralLike(node.initializer))
      found.push(node.initializer.text);
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(path, text, ts.ScriptTarget.Latest));
  return found;
}

/** @returns what goes by no code, with its file, and how many templates were looked through. */
export function findBareWords() {
  const problems = [];
  let templates = 0;
  for (const entry of readdirSync(FOLDER, { recursive: true })) {
    if (!/\.(?:ts|html)$/.test(entry) || entry.endsWith('.spec.ts') || entry.endsWith('index.html')) continue;
    const path = join(FOLDER, entry);
    for (const template of templatesIn(path)) {
      templates += 1;
      for (const words of bareWordsIn(template, path))
        problems.push(`${relative(root, path)}: “${words}” goes by no code`);
    }
  }
  return { problems, templates };
}
