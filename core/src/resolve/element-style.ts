import type { Message } from '../message/message.js';
import { setsLonghand, type BlockEntry, type MatchedBlock } from '../cascade/block.js';
import { compareCascade } from '../cascade/compare.js';
import type { ElementNode } from '../dom/tree.js';
import { LONGHANDS, VISITED_LONGHANDS, canonicalName } from '../properties/longhands.js';
import { settleSubstituted, type DeclaredValue } from '../properties/expand-declaration.js';
import { BLACK, type Color } from '../values/color.js';
import { resolveColorValue } from '../values/compute-color.js';
import { serializeColor } from '../values/serialize-color.js';
import { substituteVariables } from '../values/variables.js';
import { computeLengths } from '../values/compute-length.js';
import { computeLonghand, finishLonghand, lengthContext } from './compute-longhand.js';
import type { StyleSource } from './style-source.js';
import { textValue, type ComputedValue } from './computed-value.js';
import { inheritFontSize } from './font-size.js';
import { nativeControlValue } from './native-controls.js';

/** Longhands that apply to highlights. Source: CSS Pseudo 4 §3.4. */
const HIGHLIGHT_LONGHANDS: ReadonlySet<string> = new Set([
  'color',
  'background-color',
  'text-decoration-line',
  'text-decoration-style',
  'text-decoration-color',
  'text-decoration-thickness',
  'text-shadow',
  '-webkit-text-stroke-color',
  '-webkit-text-fill-color',
  '-webkit-text-stroke-width',
  'fill',
  'stroke',
]);

/** A declaration in the running for a property. */
export interface RankedDeclaration {
  readonly block: MatchedBlock;
  readonly important: boolean;
  readonly entry: BlockEntry;
}

/** What a view tells a style about its surroundings. */
export interface StyleSurroundings {
  readonly parent: ElementStyle | null;
  readonly root: ElementStyle | null;
  /** Style of the element a pseudo-element belongs to; `null` for an element. */
  readonly originating: ElementStyle | null;
  /** For a style matched as inside a visited link: the same style matched without. */
  readonly unvisited: ElementStyle | null;
  readonly environment: StyleSource['environment'];
  readonly registered: ReadonlyMap<
    string,
    { readonly inherits: boolean; readonly initial: string | null; readonly syntax: string }
  >;
  /** Colour schemes the page supports as a whole, behind `color-scheme: normal`. */
  readonly pageSchemes: string;
  /** Style of the same element matched as inside a visited link; `null` when it is in none. */
  readonly visited: () => ElementStyle | null;
}

/** The style of an element or pseudo-element; values are worked out when asked for and kept. */
export class ElementStyle implements StyleSource {
  readonly #computed: Map<string, ComputedValue>;
  readonly #custom: Map<string, string | null>;
  /** Resolved values as text, once for each computed value: reading them is most of what pages are asked. */
  readonly #resolved: Map<string, string>;
  #scheme: 'light' | 'dark' | null = null;
  /** Custom properties that are being substituted, and those found to hang on themselves; few styles ever have any. */
  #substituting: string[] | null = null;
  #cyclic: Set<string> | null = null;
  #importantBlocks: readonly MatchedBlock[] | null = null;

  constructor(
    readonly element: ElementNode,
    /** Name without colons; `''` for the element itself. */
    readonly pseudo: string,
    /** Blocks that apply, the weakest first. */
    readonly blocks: readonly MatchedBlock[],
    readonly surroundings: StyleSurroundings,
    /** A style known to come to the same values: their work is shared. */
    twin: ElementStyle | null = null,
  ) {
    this.#computed = twin ? twin.#computed : new Map();
    this.#custom = twin ? twin.#custom : new Map();
    this.#resolved = twin ? twin.#resolved : new Map();
  }

  /** Stands for the values this style comes to: twins have the same. */
  get identity(): object {
    return this.#computed;
  }

  get environment(): StyleSource['environment'] {
    return this.surroundings.environment;
  }

  get parent(): ElementStyle | null {
    return this.surroundings.parent;
  }

  get root(): ElementStyle | null {
    return this.surroundings.root;
  }

  /** Declarations that compete for a longhand, the winner first. */
  ranked(property: string): RankedDeclaration[] {
    const found: RankedDeclaration[] = [];
    for (const block of this.#rankedImportant()) {
      const entry = block.declarations.important.get(property);
      if (entry) found.push({ block, important: true, entry });
    }
    for (let i = this.blocks.length - 1; i >= 0; i -= 1) {
      const entry = this.blocks[i].declarations.normal.get(property);
      if (entry) found.push({ block: this.blocks[i], important: false, entry });
    }
    return found;
  }

  #rankedImportant(): readonly MatchedBlock[] {
    this.#importantBlocks ??= this.blocks
      .filter((block) => block.declarations.important.size > 0)
      .sort((a, b) => compareCascade({ block: b, important: true }, { block: a, important: true }).order);
    return this.#importantBlocks;
  }

  /** Declarations of a longhand that a browser throws away, in the blocks that apply. */
  discarded(
    property: string,
  ): { readonly block: MatchedBlock; readonly written: string; readonly start: number; readonly reason: Message }[] {
    return this.blocks.flatMap((block) =>
      block.declarations.discarded
        .filter(({ declaration }) => setsLonghand(declaration.name, property))
        .map(({ declaration, reason }) => ({
          block,
          written: `${declaration.name}: ${declaration.value}`,
          start: declaration.start,
          reason,
        })),
    );
  }

  /** Computed value of a longhand (CSS Cascading 5 §4.4). */
  computed(property: string): ComputedValue {
    let value = this.#computed.get(property);
    if (value === undefined) {
      value = this.#compute(property);
      this.#computed.set(property, value);
    }
    return value;
  }

  #compute(property: string): ComputedValue {
    const longhand = LONGHANDS.get(property);
    if (!longhand) return textValue('');
    const native = nativeControlValue(property, this);
    if (native !== null) return computeLonghand(property, longhand, native, this) ?? textValue(native);
    const value = this.#settled(property);
    const { originating } = this.surroundings;
    if (this.pseudo === 'selection' && originating) {
      // CSS Pseudo 4 §3.5: sizes and variables are the element's own; a colour nobody sets is its text's.
      const isUnset = value === 'unset' && this.#inheritedHighlight(property) === null;
      if (property === 'display') return textValue('inline');
      if (!HIGHLIGHT_LONGHANDS.has(property) || (isUnset && property === 'color'))
        return originating.computed(property);
      if (value === 'unset')
        return (
          this.#inheritedHighlight(property)?.computed(property) ??
          computeLonghand(property, longhand, longhand.initial, this) ??
          textValue(longhand.initial)
        );
    }
    const inherit = value === 'inherit' || (value === 'unset' && longhand.inherited);
    if (inherit && this.parent)
      return property === 'font-size' ? inheritFontSize(this) : this.parent.computed(property);
    const text = typeof value === 'object' ? value.text : longhand.initial;
    return (
      computeLonghand(property, longhand, text, this) ??
      computeLonghand(property, longhand, longhand.initial, this) ??
      textValue(longhand.initial)
    );
  }

  /** Nearest ancestor's highlight that declares a longhand. */
  #inheritedHighlight(property: string): ElementStyle | null {
    for (let style = this.parent; style; style = style.parent) if (style.ranked(property).length > 0) return style;
    return null;
  }

  /** The cascaded value with variables substituted and rolled back where it says `revert`. */
  #settled(property: string): { readonly text: string } | 'inherit' | 'initial' | 'unset' {
    const plain = this.#plainWinner(property);
    if (plain !== undefined) return plain;
    const ranked = this.ranked(property);
    for (let i = 0; i < ranked.length; i += 1) {
      const { block, entry } = ranked[i];
      const value = this.#substitute(property, entry.value);
      if (value === null) return 'unset';
      if (value.kind === 'value') return { text: value.text };
      if (value.keyword === 'revert' || value.keyword === 'revert-layer') {
        const isSkipped = ({ block: other }: RankedDeclaration): boolean =>
          value.keyword === 'revert'
            ? sameOrigin(other, block)
            : sameOrigin(other, block) &&
              other.layerRank === block.layerRank &&
              other.attached === block.attached &&
              other.treeDepth === block.treeDepth;
        while (i + 1 < ranked.length && isSkipped(ranked[i + 1])) i += 1;
        continue;
      }
      return value.keyword;
    }
    return 'unset';
  }

  /** Text of a declaration for a longhand with its variables substituted; `null` when that makes it invalid. */
  settle(property: string, value: DeclaredValue): string | null {
    const settled = this.#substitute(property, value);
    if (settled === null) return null;
    return settled.kind === 'wide' ? settled.keyword : settled.text;
  }

  /** The winner where nothing important and no `revert` is about, which is nearly always. */
  #plainWinner(property: string): { readonly text: string } | 'inherit' | 'initial' | 'unset' | undefined {
    if (this.#rankedImportant().length > 0) return undefined;
    for (let i = this.blocks.length - 1; i >= 0; i -= 1) {
      const entry = this.blocks[i].declarations.normal.get(property);
      if (!entry) continue;
      const value = this.#substitute(property, entry.value);
      if (value === null) return 'unset';
      if (value.kind === 'value') return value;
      return value.keyword === 'revert' || value.keyword === 'revert-layer' ? undefined : value.keyword;
    }
    return 'unset';
  }

  #substitute(property: string, value: DeclaredValue): Exclude<DeclaredValue, { kind: 'variable' }> | null {
    if (value.kind !== 'variable') return value;
    const text = substituteVariables(
      value.text,
      (name) => this.customProperty(name),
      (name) => this.element.attributes.get(name) ?? null,
    );
    // A custom property keeps the marks between tokens; any other value is read as its tokens.
    return text === null
      ? null
      : settleSubstituted(
          property,
          value.shorthand,
          property.startsWith('--') ? text : text.replaceAll('/**/', ' ').trim(),
        );
  }

  /**
   * Computed value of a custom property; `null` is the guaranteed-invalid value.
   * Source: CSS Variables 1 §2 and §3.1 for cycles.
   */
  customProperty(name: string): string | null {
    // A rule for visited links may set a few colours; what it says of variables counts for nothing.
    const source = this.surroundings.unvisited ?? (this.pseudo === 'selection' ? this.surroundings.originating : null);
    if (source) return source.customProperty(name);
    const known = this.#custom.get(name);
    if (known !== undefined) return known;
    const substituting = (this.#substituting ??= []);
    const at = substituting.indexOf(name);
    if (at >= 0) {
      this.#cyclic ??= new Set();
      for (const member of substituting.slice(at)) this.#cyclic.add(member);
      return null;
    }
    substituting.push(name);
    let value = this.#computeCustom(name);
    substituting.pop();
    if (this.#cyclic?.has(name)) value = null;
    this.#custom.set(name, value);
    return value;
  }

  #computeCustom(name: string): string | null {
    const registered = this.surroundings.registered.get(name);
    const settled = this.#settled(name);
    const inherits = registered?.inherits ?? true;
    if (typeof settled === 'object') {
      const text = settled.text;
      if (!registered || registered.syntax === '*') return text;
      if (matchesSyntax(registered.syntax, text))
        return /<length/.test(registered.syntax) ? computeLengths(text, lengthContext(this)) : text;
    } else if (settled === 'initial') {
      return registered?.initial ?? null;
    }
    if (settled === 'inherit' || inherits)
      return this.parent ? this.parent.customProperty(name) : (registered?.initial ?? null);
    return registered?.initial ?? null;
  }

  /** A colour longhand's used colour, that of a visited link included; `null` for `none` and `auto`. */
  color(property: string): Color | null {
    const own = this.#ownColor(property);
    const visited = this.seen(property);
    const seen = visited === this ? null : visited.#ownColor(property);
    // Browsers keep the alpha of the unvisited colour, so that nothing about the visit can be measured.
    return own && seen ? { ...seen, alpha: own.alpha } : own;
  }

  /** The style that decides a longhand to the eye: that of a visited link where browsers permit it, else this one. */
  seen(property: string): ElementStyle {
    return (VISITED_LONGHANDS.has(property) ? this.surroundings.visited() : null) ?? this;
  }

  #ownColor(property: string): Color | null {
    const value = this.computed(property);
    if (value.kind !== 'color') return null;
    return resolveColorValue(value.value, { scheme: this.colorScheme(), currentColor: this.currentColor() });
  }

  currentColor(): Color {
    const value = this.computed('color');
    return value.kind === 'color' && value.value.kind === 'color' ? value.value.color : BLACK;
  }

  /** Used colour scheme (CSS Color Adjustment 1 §2). */
  colorScheme(): 'light' | 'dark' {
    this.#scheme ??= this.#usedScheme();
    return this.#scheme;
  }

  #usedScheme(): 'light' | 'dark' {
    const value = this.computed('color-scheme');
    const text = value.kind === 'text' ? value.text : 'normal';
    const words = (text === 'normal' ? this.surroundings.pageSchemes : text).split(/\s+/);
    if (!words.includes('dark')) return 'light';
    return !words.includes('light') || this.environment.colorScheme === 'dark' ? 'dark' : 'light';
  }

  /** Font size in CSS px. */
  fontSize(): number {
    const value = this.computed('font-size');
    return value.kind === 'text' ? Number.parseFloat(value.text) : 16;
  }

  /** The resolved value, as `getComputedStyle` gives it (CSSOM §9). */
  resolved(property: string): string {
    const name = canonicalName(property);
    // Visited links show other colours than they compute.
    if (this.surroundings.visited() !== null) return this.#resolve(name);
    let text = this.#resolved.get(name);
    if (text === undefined) this.#resolved.set(name, (text = this.#resolve(name)));
    return text;
  }

  #resolve(name: string): string {
    if (!isInFlatTree(this.element)) return '';
    if (name.startsWith('--')) return this.customProperty(name) ?? '';
    const longhand = LONGHANDS.get(name);
    if (!longhand) return '';
    if (longhand.kind === 'color') {
      const color = this.color(name);
      if (color) return serializeColor(color);
      const value = this.computed(name);
      if (value.kind === 'color' && value.value.kind === 'keyword') {
        // `auto` of the caret and the outline is the current colour once used.
        return value.value.name === 'auto' && name !== 'accent-color'
          ? serializeColor(this.color('color') ?? BLACK)
          : value.value.name;
      }
      return value.kind === 'text' ? value.text : '';
    }
    return finishLonghand(name, this.computed(name), this);
  }
}

/** Whether an element is rendered in the flat tree: CSSOM §9 gives the others no values. */
function isInFlatTree(element: ElementNode): boolean {
  let node = element;
  while (node.flatParent) node = node.flatParent;
  return node.root.kind === 'document' && node.parent === null;
}

function sameOrigin(a: MatchedBlock, b: MatchedBlock): boolean {
  return (a.origin === 'user-agent') === (b.origin === 'user-agent');
}

/** Whether a text fits a registered syntax, for the types that colours and sizes need; others are taken as they are. */
function matchesSyntax(syntax: string, text: string): boolean {
  const value = text.trim();
  return syntax.split('|').some((option) => {
    switch (option.trim()) {
      case '<color>':
        return settleSubstituted('color', null, value)?.kind === 'value';
      case '<length>':
        return (
          /^[+-]?[\d.]+(?:px|em|rem|ch|ex|vw|vh|vmin|vmax|pt|cm|mm|in|pc|q)$|^0$/i.test(value) ||
          /^(?:calc|min|max|clamp)\(/i.test(value)
        );
      case '<percentage>':
        return /^[+-]?[\d.]+%$/.test(value);
      case '<length-percentage>':
        return settleSubstituted('padding-top', null, value.replace(/^-/, ''))?.kind === 'value';
      case '<number>':
        return /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)$/.test(value);
      case '<integer>':
        return /^[+-]?\d+$/.test(value);
      case '<angle>':
        return /^[+-]?[\d.]+(?:deg|rad|grad|turn)$/i.test(value);
      case '<time>':
        return /^[+-]?[\d.]+m?s$/i.test(value);
      default:
        return /^<[a-z-]+>[+#]?$/.test(option.trim()) || option.trim() === value;
    }
  });
}
