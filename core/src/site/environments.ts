import { keyOf, message, type Message } from '../message/message.js';
import { setsLonghand } from '../cascade/block.js';
import { DESKTOP, type MediaEnvironment, type Setting } from '../conditions/environment.js';
import type { Bound, MediaFeature } from '../conditions/media-feature.js';
import type { Page } from '../resolve/page.js';
import type { Condition, StyleRule } from '../rules/style-rule.js';
import { variablesIn } from '../values/variables-in.js';
import type { WidthRange } from '../veneer/override.js';
import { isInRange } from '../veneer/media.js';
import { featuresOf, isWidth, oneOfEachStretch, startsOf } from './breakpoints.js';
import type { SiteModel } from './site-model.js';

/** Widths the product shows pages at, in CSS px. */
export const USUAL_WIDTHS = [1280, 820, 390] as const;
/** Narrowest viewport that is looked at, CSS px. */
const NARROWEST = 240;
const LOWEST = 200;
/** Most widths that are looked at, and most environments: each is a resolution of its own. */
const MOST_WIDTHS = 40;
const MOST_ENVIRONMENTS = 96;

/** Everywhere that some properties can come out otherwise. */
export interface Settings {
  /** Widest first, the plain desktop screen of a width before others. */
  readonly settings: readonly Setting[];
  /** What rules hang on and is not looked at. */
  readonly unseen: readonly Message[];
}

/** What the conditions of rules ask about. */
interface Asked {
  readonly widths: Set<number>;
  readonly heights: Bound[];
  /** Width to height at which an answer changes: from the height on, or just above it too. */
  readonly ratios: Map<number, 'from' | 'above'>;
  readonly resolutions: Set<number>;
  readonly alternatives: Map<string, readonly Partial<MediaEnvironment>[]>;
  /** By its key. */
  readonly unseen: Map<string, Message>;
}

/**
 * The settings of a site in which some longhands may come out otherwise: one width between each two breakpoints of rules that
 * have a say in them, with every height, orientation, resolution, colour scheme, pointer and preference that those rules ask for.
 * @param within widths that are asked about; its ends are breakpoints too.
 */
export function settingsThatMatter(
  site: SiteModel,
  longhands: readonly string[],
  within: WidthRange | null | undefined = null,
): Settings {
  const asked: Asked = {
    widths: new Set(),
    heights: [],
    ratios: new Map(),
    resolutions: new Set(),
    alternatives: new Map(),
    unseen: new Map(),
  };
  for (const page of site.pages.values()) askedOn(page, longhands, asked);
  // The site is looked at in each of its lightings, so the scheme is no alternative within one.
  if (site.palette.second?.told.kind === 'scheme') asked.alternatives.delete('scheme');
  if (within?.min != null) asked.widths.add(within.min);
  if (within?.max != null) asked.widths.add(within.max + 1);
  const all = oneOfEachStretch(
    [...asked.widths].filter((start) => start < 10_000),
    NARROWEST,
    USUAL_WIDTHS,
  )
    .filter((width) => isInRange(width, within))
    .reverse();
  const unseen = [...asked.unseen.values()];
  const widths = all.length > MOST_WIDTHS ? kept(all) : all;
  if (widths.length < all.length)
    unseen.push(message('setting.widths-left', { left: all.length - widths.length, all: all.length }));
  if (widths.length === 0) widths.push(within?.min ?? within?.max ?? USUAL_WIDTHS[0]);
  const settings = widths.flatMap((width) => product(width, axesAt(width, asked)));
  if (settings.length <= MOST_ENVIRONMENTS) return { settings, unseen };
  // One thing at a time, then.
  unseen.push(message('setting.several-at-once'));
  const single = widths.flatMap((width) => [
    { width },
    ...axesAt(width, asked).flatMap((axis) => axis.map((change): Setting => ({ width, ...change }))),
  ]);
  if (single.length > MOST_ENVIRONMENTS)
    unseen.push(message('match.settings', { left: single.length - MOST_ENVIRONMENTS, all: single.length }));
  return { settings: single.slice(0, MOST_ENVIRONMENTS), unseen };
}

/** Settings as they are told: `at 1280, 820 px; also dark, without hover`. */
export function settingsTold(settings: readonly Setting[]): Message {
  const widths = [...new Set(settings.map(({ width }) => width))];
  const others = new Map(
    settings
      .flatMap((setting) => Object.entries(setting).flatMap(([name, value]) => toldOf(name, value) ?? []))
      .map((told) => [keyOf(told), told]),
  );
  return message('setting.all', { widths: widths.map(String), count: others.size, others: [...others.values()] });
}

const TOLD = ['height', 'colorScheme', 'hover', 'resolution', 'reducedMotion', 'contrast'] as const;

function toldOf(name: string, value: unknown): Message | null {
  if (name === 'width' || name === 'pointer') return null;
  const known = TOLD.find((own) => own === name);
  return known ? message(`setting.one.${known}`, { value: String(value) }) : message('plain', { text: name });
}

/** The usual widths, then the others spread over their range. */
function kept(widths: readonly number[]): number[] {
  const usual = widths.filter((width) => (USUAL_WIDTHS as readonly number[]).includes(width));
  const others = widths.filter((width) => !usual.includes(width));
  const step = others.length / (MOST_WIDTHS - usual.length);
  return [...usual, ...others.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step))].sort(
    (a, b) => b - a,
  );
}

/** What can differ at a width besides it, each with its alternatives to a plain desktop screen. */
function axesAt(
  width: number,
  { heights, ratios, resolutions, alternatives }: Asked,
): (readonly Partial<MediaEnvironment>[])[] {
  const heightStarts = [
    ...startsOf(heights),
    ...[...ratios].flatMap(([ratio, side]) => [
      Math.ceil(width / ratio),
      ...(side === 'above' ? [Math.floor(width / ratio) + 1] : []),
    ]),
  ];
  const others = oneOfEachStretch(heightStarts, LOWEST, [DESKTOP.height]).filter((height) => height !== DESKTOP.height);
  return [
    ...(others.length > 0 ? [others.map((height) => ({ height }))] : []),
    ...(resolutions.size > 0 ? [[...resolutions].map((resolution) => ({ resolution }))] : []),
    ...alternatives.values(),
  ];
}

function product(width: number, axes: readonly (readonly Partial<MediaEnvironment>[])[]): Setting[] {
  return axes.reduce<Setting[]>(
    (settings, axis) => settings.flatMap((setting) => [setting, ...axis.map((change) => ({ ...setting, ...change }))]),
    [{ width }],
  );
}

function askedOn(page: Page, longhands: readonly string[], asked: Asked): void {
  const feeding = propertiesFeeding(page, longhands);
  let hasSchemes = page.metaColorScheme.includes('dark');
  const seen = new Set<Condition>();
  for (const rule of rulesOf(page)) {
    if (!hasSchemes)
      hasSchemes = rule.declarations.some(({ name, value }) => name === 'color-scheme' && /\bdark\b/i.test(value));
    if (
      rule.conditions.length === 0 ||
      !rule.declarations.some(
        ({ name }) => feeding.has(name) || longhands.some((longhand) => setsLonghand(name, longhand)),
      )
    )
      continue;
    for (const condition of rule.conditions) {
      if (seen.has(condition)) continue;
      seen.add(condition);
      if (condition.kind === 'container')
        noteUnseen(asked.unseen, message('plain', { text: `@container ${condition.text}` }));
      if (condition.kind === 'media') featuresOf(condition.text).forEach((feature) => note(feature, asked));
    }
  }
  if (hasSchemes) asked.alternatives.set('scheme', [{ colorScheme: 'dark' }]);
}

const TOUCH: Partial<MediaEnvironment> = { hover: false, pointer: 'coarse' };

function note(feature: MediaFeature, { widths, heights, ratios, resolutions, alternatives, unseen }: Asked): void {
  const { name } = feature;
  const bounds = feature.kind === 'range' ? feature.bounds : [];
  if (isWidth(name)) startsOf(bounds).forEach((start) => widths.add(start));
  else if (name === 'height' || name === 'device-height') heights.push(...bounds);
  else if (name === 'orientation') ratios.set(1, ratios.get(1) ?? 'from');
  else if (name.endsWith('aspect-ratio')) bounds.forEach(({ value }) => value > 0 && ratios.set(value, 'above'));
  else if (name === 'resolution' || name === '-webkit-device-pixel-ratio')
    bounds.forEach(({ sign, value }) =>
      resolutions.add(sign === '>=' || sign === '<' || sign === '=' ? value : value + 0.01),
    );
  else if (name === 'prefers-color-scheme') alternatives.set('scheme', [{ colorScheme: 'dark' }]);
  else if (name === 'prefers-reduced-motion') alternatives.set('motion', [{ reducedMotion: true }]);
  else if (name === 'prefers-contrast') alternatives.set('contrast', [{ contrast: 'more' }, { contrast: 'less' }]);
  else if (/^(any-)?(hover|pointer)$/.test(name)) alternatives.set('pointer', [TOUCH]);
  else {
    const told = UNSEEN.get(name);
    if (told) noteUnseen(unseen, message(told));
  }
}

function noteUnseen(unseen: Map<string, Message>, told: Message): void {
  unseen.set(keyOf(told), told);
}

/** Features that rules can hang on and that no setting stands for. */
const UNSEEN: ReadonlyMap<string, Message['code']> = new Map([
  ['forced-colors', 'setting.unseen.forced-colours'],
  ['inverted-colors', 'setting.unseen.inverted-colours'],
  ['prefers-reduced-transparency', 'setting.unseen.reduced-transparency'],
  ['prefers-reduced-data', 'setting.unseen.reduced-data'],
  ['update', 'setting.unseen.slow-screens'],
  ['display-mode', 'setting.unseen.installed-display-modes'],
  ['scripting', 'setting.unseen.scripting-switched-off'],
  ['color-gamut', 'setting.unseen.wide-gamut-screens'],
  ['dynamic-range', 'setting.unseen.high-dynamic-range'],
  ['video-dynamic-range', 'setting.unseen.high-dynamic-range'],
  ['monochrome', 'setting.unseen.screens-without-colour'],
  ['color', 'setting.unseen.screens-without-colour'],
  ['color-index', 'setting.unseen.screens-of-few-colours'],
  ['overflow-block', 'setting.unseen.paged-media'],
  ['overflow-inline', 'setting.unseen.paged-media'],
  ['grid', 'setting.unseen.character-screens'],
  ['scan', 'setting.unseen.interlaced-screens'],
]);

function rulesOf(page: Page): readonly StyleRule[] {
  return page.veneerRules.length === 0 ? page.base.rules : [...page.base.rules, ...page.veneerRules];
}

const feedingByPage = new WeakMap<Page['base'], Map<string, ReadonlySet<string>>>();

/** Custom properties that declarations of some longhands take their values from, directly or through others. */
function propertiesFeeding(page: Page, longhands: readonly string[]): ReadonlySet<string> {
  let byLonghands = feedingByPage.get(page.base);
  if (!byLonghands) feedingByPage.set(page.base, (byLonghands = new Map()));
  const key = longhands.join();
  const known = byLonghands.get(key);
  if (known && page.veneerRules.length === 0) return known;
  const feeding = new Set<string>(longhands.filter((longhand) => longhand.startsWith('--')));
  const uses = new Map<string, string[]>();
  const waiting: string[] = [...feeding];
  const take = (name: string, value: string): void => {
    if (!value.includes('var(')) return;
    const used = variablesIn(value);
    if (name.startsWith('--')) uses.set(name, [...(uses.get(name) ?? []), ...used]);
    else if (longhands.some((longhand) => setsLonghand(name, longhand))) waiting.push(...used);
  };
  for (const { declarations } of rulesOf(page)) for (const { name, value } of declarations) take(name, value);
  // What an attribute takes its value from is not read: any custom property may feed it.
  if (page.document.elements.some(({ attributes }) => attributes.get('style')?.includes('var(')))
    waiting.push(...uses.keys(), ...declaredIn(page));
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (feeding.has(name)) continue;
    feeding.add(name);
    waiting.push(...(uses.get(name) ?? []));
  }
  if (page.veneerRules.length === 0) byLonghands.set(key, feeding);
  return feeding;
}

function declaredIn(page: Page): string[] {
  return [
    ...new Set(
      page.base.rules.flatMap(({ declarations }) =>
        declarations.filter(({ name }) => name.startsWith('--')).map(({ name }) => name),
      ),
    ),
  ];
}
