import type { Spoken } from '@upper-veneer/words';
import {
  autocompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { cssLanguage } from '@codemirror/lang-css';
import { syntaxTree } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import type { SheetWords } from '@upper-veneer/core';

const SAMPLE_CLASS = 'uv-sample-';

/** Completion of what the site has: its classes and ids in selectors, the palette's and its own custom properties in values. */
export function completeCss(words: () => Promise<Spoken<SheetWords>>): Extension {
  let known: Promise<Spoken<SheetWords>> | null = null;
  return [
    cssLanguage.data.of({
      autocomplete: async (context: CompletionContext): Promise<CompletionResult | null> =>
        completions(context, await (known ??= words())),
    }),
    autocompletion({
      icons: false,
      addToOptions: [{ position: 20, render: sampleOf }],
    }),
  ];
}

function completions(context: CompletionContext, words: Spoken<SheetWords>): CompletionResult | null {
  const property = context.matchBefore(/(?<![\w-])--[\w-]*/);
  if (property) {
    const isInVar = /var\(\s*$/i.test(context.state.sliceDoc(Math.max(0, property.from - 8), property.from));
    const written = (name: string): string => (isInVar ? name : `var(${name})`);
    return {
      from: property.from,
      options: [
        ...words.palette.map(({ name, hex, words: detail }): Completion => ({
          label: name,
          apply: written(name),
          detail,
          type: SAMPLE_CLASS + hex,
          boost: 2,
        })),
        ...words.properties.map((name): Completion => ({ label: name, apply: written(name) })),
      ],
      validFor: /^--[\w-]*$/,
    };
  }
  const node = syntaxTree(context.state).resolveInner(context.pos, -1);
  const isInBlock = node.name === 'Block' || node.matchContext(['Block']) || node.matchContext(['Declaration']);
  const name = context.matchBefore(/[.#][\w-]*/);
  if (name && !isInBlock) {
    const list = name.text.startsWith('.') ? words.classes : words.ids;
    return {
      from: name.from + 1,
      options: list.map((label, i): Completion => ({ label, boost: -Math.min(99, i / 20) })),
      validFor: /^[\w-]*$/,
    };
  }
  const value = context.matchBefore(/:\s*[\w-]*$/);
  if (!value) return null;
  const from = value.from + (/^:\s*/.exec(value.text)?.[0].length ?? 1);
  const declared = context.state.sliceDoc(context.state.doc.lineAt(context.pos).from, value.from);
  if (!/(?:color|fill|stroke|background|border|outline|shadow|image)/i.test(declared)) return null;
  return {
    from,
    options: words.palette.map(({ name: label, hex, words: detail }): Completion => ({
      label: `var(${label})`,
      detail,
      type: SAMPLE_CLASS + hex,
      boost: 3,
    })),
    validFor: /^[\w-]*$/,
  };
}

/** A sample of the colour before a completion that is one. */
function sampleOf({ type }: Completion): Node | null {
  if (!type?.startsWith(SAMPLE_CLASS)) return null;
  const sample = document.createElement('span');
  sample.className = 'cm-uv-chip';
  sample.style.background = type.slice(SAMPLE_CLASS.length);
  return sample;
}
