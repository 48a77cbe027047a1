import { parseSelectorList } from '../selectors/parse-selector.js';
import { compareSpecificity, type SelectorList } from '../selectors/selector.js';
import { greatestSpecificity } from '../selectors/specificity.js';
import { T, tokenizeCss } from '../syntax/tokens.js';
import { DARK_SCHEME, litRoot, markerSelector, type LightingSignal } from './lighting.js';
import type { Naming } from './naming.js';
import { plainCssOfValue } from './override-value.js';
import { paletteIn, type Palette } from './palette.js';
import type { VeneerDeclaration, VeneerRule } from './veneer-rule.js';

/**
 * Rules of a sheet of plain values, each followed by what it comes to in the second lighting, as specific as itself. Such a
 * twin stands as far down as nothing between that could compete with it allows, so that those of a section stand together.
 */
export function inBothLightings(
  rules: readonly VeneerRule[],
  palette: Palette,
  { asValues }: Naming,
): readonly VeneerRule[] {
  const { second } = palette;
  if (!second || !asValues) return rules;
  const written: VeneerRule[] = [];
  let waiting: VeneerRule[] = [];
  const flush = (): void => {
    written.push(...waiting);
    waiting = [];
  };
  for (const rule of rules) {
    if (waiting.some((twin) => twin.partId !== rule.partId || canCompete(twin, rule))) flush();
    written.push(rule);
    const twin = twinOf(rule, palette, second.told);
    if (twin) waiting.push(twin);
  }
  flush();
  return written;
}

function twinOf(rule: VeneerRule, palette: Palette, told: LightingSignal): VeneerRule | null {
  const [light, inverted] = [paletteIn(palette, 'light'), paletteIn(palette, 'inverted')];
  const declarations = rule.declarations.flatMap((declaration): VeneerDeclaration[] => {
    const css = plainCssOfValue(declaration.value, inverted);
    return css === plainCssOfValue(declaration.value, light)
      ? []
      : [{ ...declaration, value: { kind: 'literal', css }, from: [] }];
  });
  if (declarations.length === 0) return null;
  if (told.kind === 'scheme')
    return { ...rule, declarations, media: [rule.media, DARK_SCHEME].filter((part) => part !== null).join(' and ') };
  return {
    ...rule,
    declarations,
    selector: parseSelectorList(rule.selector)
      .map((selector) => inMarked(selector, told))
      .join(', '),
  };
}

/** A selector that holds under the marker alone, without a word on how specific it is. */
function inMarked(
  { text, compounds, pseudoElements }: SelectorList[number],
  told: Exclude<LightingSignal, { kind: 'scheme' }>,
): string {
  const marked = markerSelector(told);
  const subject = compounds[compounds.length - 1];
  const canBeRoot = subject.type === null || ['html', 'body'].includes(subject.type);
  const around = `:where(${canBeRoot ? `${litRoot(told)}, ` : ''}${canBeRoot && told.on === 'body' ? `${marked}, ` : ''}${marked} *)`;
  if (pseudoElements.length === 0) return `${text}${around}`;
  const at = startOfPseudoElement(text);
  return `${text.slice(0, at)}${around}${text.slice(at)}`;
}

/** Where the first pseudo-element of a selector that has one begins: at two colons, else at the last one. */
function startOfPseudoElement(text: string): number {
  const { starts, types, count } = tokenizeCss(text);
  const colons = Array.from({ length: count }, (_, i) => i).filter((i) => types[i] === T.Colon);
  const double = colons.find((i) => types[i + 1] === T.Colon);
  return starts[double ?? colons[colons.length - 1]];
}

function canCompete(a: VeneerRule, b: VeneerRule): boolean {
  return (
    a.declarations.some(({ property, important }) =>
      b.declarations.some((other) => other.property === property && other.important === important),
    ) && compareSpecificity(specificityOf(a), specificityOf(b)) === 0
  );
}

function specificityOf({ selector }: VeneerRule): ReturnType<typeof greatestSpecificity> {
  return greatestSpecificity(parseSelectorList(selector));
}
