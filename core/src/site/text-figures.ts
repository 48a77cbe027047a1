import { RATIOS } from '../color/contrast.js';
import type { ElementStyle } from '../resolve/element-style.js';

const TEXT_CONTROLS: ReadonlySet<string> = new Set(['input', 'textarea', 'select']);

/** Whether an element or pseudo-element shows text of its own, so that its text colour is seen. */
export function showsText({ element, pseudo }: Pick<ElementStyle, 'element' | 'pseudo'>): boolean {
  return pseudo !== '' || element.ownText.trim() !== '' || TEXT_CONTROLS.has(element.localName);
}

/** Contrast ratio WCAG 2.2 (1.4.3) asks of a text: less from 24 px on, or from 18.66 px when it is bold. */
export function wantedRatio(style: ElementStyle): number {
  const size = style.fontSize();
  const weight = Number(style.resolved('font-weight'));
  return size >= 24 || (size >= 18.66 && weight >= 700) ? RATIOS.largeText : RATIOS.text;
}
