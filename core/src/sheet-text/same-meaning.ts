import { withVeneer } from '../resolve/page.js';
import { rulesInVeneer } from '../resolve/rules-in-veneer.js';
import { settingsThatMatter } from '../site/environments.js';
import { compileOptionsOf, dressSheet, inEachLighting, withSpecimen, type SiteModel } from '../site/site-model.js';
import { sameSheets } from '../tidy/same-outcome.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { compileVeneer, veneerRules, writtenSheet } from '../veneer/compile-veneer.js';
import { valueOfCustomProperty } from '../veneer/custom-property.js';
import { litRoot } from '../veneer/lighting.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Override } from '../veneer/override.js';
import type { VeneerRule } from '../veneer/veneer-rule.js';

/**
 * Whether overrides and own CSS compile to a sheet that means what an edited text says: the computed values of all that the rules between
 * them can touch are the same, on every page, in every state, width and lighting. Custom properties of the palette that the text names
 * count as declared.
 */
export function sameMeaning(
  of: SiteModel,
  text: string,
  { overrides, ownCss }: { readonly overrides: readonly Override[]; readonly ownCss: readonly OwnCss[] },
): boolean {
  const site = withSpecimen(of);
  const options = { ...compileOptionsOf(site), ownCss };
  const compiled = compileVeneer(overrides, options);
  if (compiled === text) return true;
  const { blocks } = writtenSheet(veneerRules(overrides, options), options);
  return sameTexts(site, `${blocks.join('\n\n')}\n${text}`, compiled);
}

/** Whether two sheets come to the same computed values wherever the rules that differ between them can show. */
export function sameTexts(of: SiteModel, one: string, other: string): boolean {
  const site = withSpecimen(of);
  const differing = differingRules(rulesOf(one, site), rulesOf(other, site));
  if (differing.length === 0) return true;
  const longhands = [
    ...new Set(
      differing.flatMap(({ declarations }) => declarations.flatMap(({ property }) => longhandsOfProperty(property))),
    ),
  ];
  // Widths that either of the two sets apart.
  const settings = [one, other].flatMap((css) => settingsThatMatter(dressSheet(site, css), longhands).settings);
  const known = new Map(settings.map((setting) => [JSON.stringify(setting), setting]));
  const pages = inEachLighting(site).flatMap((lit) => [...lit.closed.values()]);
  const ground = { hoverOnly: site.source.hoverOnly, pages, settings: [...known.values()] };
  return sameSheets(ground, differing, (page) => [withVeneer(page, one), withVeneer(page, other)]);
}

/** Style rules of a sheet as a browser reads them, those of the palette's definitions left out. */
function rulesOf(css: string, { palette, source }: SiteModel): VeneerRule[] {
  const roots = [
    ':root',
    ...(palette.second && palette.second.told.kind !== 'scheme' ? [litRoot(palette.second.told)] : []),
  ];
  return rulesInVeneer(css).map(({ selectorText, conditions, declarations }) => ({
    partId: null,
    selector: selectorText,
    media: conditions.map(({ kind, text }) => `${kind} ${text}`).join(' ') || null,
    isForWidths: false,
    supports: null,
    declarations: declarations
      .map(({ name, value, important }) => ({
        property: name,
        value: { kind: 'literal' as const, css: value },
        important,
      }))
      .filter(
        ({ property }) => !roots.includes(selectorText) || valueOfCustomProperty(property, palette, source) === null,
      ),
  }));
}

/** Rules that only one list has, or that stand otherwise among those both have. */
function differingRules(before: readonly VeneerRule[], after: readonly VeneerRule[]): VeneerRule[] {
  const [old, now] = [before, after].map((rules) =>
    rules.filter(({ declarations }) => declarations.length > 0).map((rule) => ({ rule, key: JSON.stringify(rule) })),
  );
  const [inOld, inNow] = [old, now].map((list) => new Set(list.map(({ key }) => key)));
  const inBoth = (list: typeof old): typeof old => list.filter(({ key }) => inOld.has(key) && inNow.has(key));
  const isInOrder =
    inBoth(old)
      .map(({ key }) => key)
      .join('\n') ===
    inBoth(now)
      .map(({ key }) => key)
      .join('\n');
  if (!isInOrder) return [...before, ...after];
  return [...old.filter(({ key }) => !inNow.has(key)), ...now.filter(({ key }) => !inOld.has(key))].map(
    ({ rule }) => rule,
  );
}
