import type { ElementStyle, RankedDeclaration } from './element-style.js';
import { variablesIn } from '../values/variables-in.js';

/** A declaration of a custom property that a painted colour hangs on. */
export interface Feeding {
  readonly name: string;
  /** Style it is declared in. */
  readonly style: ElementStyle;
  readonly declared: RankedDeclaration;
}

/** The custom properties a declaration takes its value from, directly or through one another. */
export function feedingProperties(style: ElementStyle, decided: RankedDeclaration): Feeding[] {
  const { value } = decided.entry;
  if (value.kind !== 'variable') return [];
  const found = new Map<string, Feeding>();
  const waiting = variablesIn(value.text);
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (found.has(name)) continue;
    const declared = declarationOf(style, name);
    if (!declared) continue;
    found.set(name, { name, ...declared });
    const text = declared.declared.entry.value;
    if (text.kind !== 'wide') waiting.push(...variablesIn(text.text));
  }
  return [...found.values()];
}

/** Custom properties inherit: the nearest element that declares one decides it. */
export function declarationOf(style: ElementStyle, name: string): Omit<Feeding, 'name'> | null {
  for (let at: ElementStyle | null = style; at; at = at.parent) {
    const [declared] = at.ranked(name);
    if (declared) return { style: at, declared };
  }
  return null;
}
