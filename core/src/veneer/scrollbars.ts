import type { VeneerRule } from './veneer-rule.js';
import { mediaOf } from './media.js';
import type { Override } from './override.js';
import { plainValuesIn, type OverrideValue } from './override-value.js';

/** Engines that have the prefixed scrollbar parts take those; the others the standard properties, so that neither switches the other off. */
const HAS_PARTS = 'selector(::-webkit-scrollbar)';
const LACKS_PARTS = `not ${HAS_PARTS}`;

/** Whether a pseudo-element is a part of a scrollbar. */
export function isScrollbarPart(pseudo: string): boolean {
  return pseudo.startsWith('-webkit-scrollbar');
}

/**
 * Condition of engines that an override of a scrollbar is for; `null` for all. Where the standard properties are set, engines
 * that have the parts pass over them (CSS Scrollbars 1 §2; common practice since Chromium 121): `auto` gives the parts back to
 * those, anything else is kept from them where parts are overridden too.
 * @param overrides all overrides it stands among.
 */
export function engineGuardOf(override: Override, overrides: readonly Override[]): string | null {
  if (isScrollbarPart(override.pseudo)) return HAS_PARTS;
  if (!isStandard(override)) return null;
  if (override.value.kind === 'literal' && override.value.css.trim().toLowerCase() === 'auto') return HAS_PARTS;
  return overrides.some((other) => isScrollbarPart(other.pseudo) && isOfSameBox(other, override)) ? LACKS_PARTS : null;
}

/** Whether an override is kept from the engines that have scrollbar parts, the one that resolves styles here among them. */
export function isForOtherEngines(override: Override, overrides: readonly Override[]): boolean {
  return engineGuardOf(override, overrides) === LACKS_PARTS;
}

/** For engines without scrollbar parts: thumb and track by the standard property, where nothing else was said; without a track of ours what lies under it shows. */
export function standardScrollbars(overrides: readonly Override[], partId: number | null): VeneerRule[] {
  const fillLike = (thumb: Override, selector: string): Override | undefined =>
    overrides.find(
      (override) =>
        override.selector === selector &&
        override.property === 'background-color' &&
        mediaOf(override, false) === mediaOf(thumb, false),
    );
  return overrides.flatMap((thumb): VeneerRule[] => {
    if (!thumb.selector.endsWith('::-webkit-scrollbar-thumb') || thumb.property !== 'background-color') return [];
    const base = thumb.selector.slice(0, -'::-webkit-scrollbar-thumb'.length);
    const track = fillLike(thumb, `${base}::-webkit-scrollbar-track`);
    const [thumbColor] = plainValuesIn(thumb.value);
    const [trackColor] = track ? plainValuesIn(track.value) : [{ kind: 'literal', css: 'transparent' } as const];
    if (thumb.value.kind === 'composite' || track?.value.kind === 'composite' || !thumbColor || !trackColor) return [];
    if (
      overrides.some(
        (other) =>
          other.property === 'scrollbar-color' && isOfSameBox(other, thumb) && isForOtherEngines(other, overrides),
      )
    )
      return [];
    const value: OverrideValue = {
      kind: 'composite',
      css: '{0} {1}',
      colors: [thumbColor, trackColor],
    };
    return [
      {
        partId,
        selector: base || '*',
        media: mediaOf(thumb, false),
        isForWidths: thumb.widths != null,
        supports: LACKS_PARTS,
        declarations: [
          { property: 'scrollbar-color', value, important: thumb.important && (track?.important ?? true) },
        ],
      },
    ];
  });
}

function isStandard({ property, pseudo }: Override): boolean {
  return pseudo === '' && (property === 'scrollbar-color' || property === 'scrollbar-width');
}

function isOfSameBox(a: Override, b: Override): boolean {
  return a.pageId === b.pageId && a.element === b.element;
}
