import { readBlock, type BlockDeclarations } from '../cascade/block.js';
import type { Page } from '../resolve/page.js';
import { parseDeclarationList } from '../syntax/parse-stylesheet.js';
import { variablesIn } from '../values/variables-in.js';

/** Longhands that declarations of a page take from a custom property, directly or through other custom properties. */
export function longhandsFedBy(page: Page, property: string): string[] {
  const blocks = blocksOf(page);
  const feeding = new Set([property]);
  const fed = new Set<string>();
  // A property that takes its value from one found may feed others in turn.
  for (let known = 0; known < feeding.size;) {
    known = feeding.size;
    for (const { normal, important } of blocks) {
      for (const entries of [normal, important]) {
        for (const [longhand, { value }] of entries) {
          if (value.kind === 'wide' || !variablesIn(value.text).some((name) => feeding.has(name))) continue;
          (longhand.startsWith('--') ? feeding : fed).add(longhand);
        }
      }
    }
  }
  return [...fed].sort();
}

function blocksOf({ base, veneerRules, document }: Page): BlockDeclarations[] {
  const attached = document.elements.flatMap((element) => {
    const text = element.attributes.get('style');
    return text?.includes('var(') ? [readBlock(parseDeclarationList(text).declarations)] : [];
  });
  return [...[...base.rules, ...veneerRules].map(({ declarations }) => readBlock(declarations)), ...attached];
}
