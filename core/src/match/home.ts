import type { Painting } from '../census/paintings.js';
import { sourceOf } from '../resolve/explain.js';
import { feedingProperties } from '../resolve/feeding-properties.js';
import { colorOfCss } from '../veneer/palette.js';
import type { Home } from './found-color.js';

/** Where a painted colour can really be changed. */
export function homeOf({ decided, style }: Painting): Omit<Home, 'places'> {
  const none = { sheet: '', line: 0, selector: '', property: '' };
  if (!decided) return { kind: 'initial', ...none };
  const source = sourceOf(decided.block, decided.entry.declaration.start);
  if (source.kind === 'style-attribute') return { kind: 'inline', ...none };
  if (source.kind === 'presentational-attribute') return { kind: 'attribute', ...none };
  if (source.kind === 'browser') return { kind: 'browser', ...none };
  const [feeding] = feedingProperties(style, decided).filter(
    ({ name, style: from }) => colorOfCss(from.customProperty(name) ?? '') !== null,
  );
  const where = { sheet: source.sheet, line: source.at?.line ?? 0, selector: source.selector };
  return feeding
    ? { kind: 'custom-property', ...where, property: feeding.name }
    : { kind: 'rule', ...where, property: '' };
}
