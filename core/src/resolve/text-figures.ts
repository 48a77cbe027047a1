import { RATIOS } from '../color/contrast.js';
import type { ElementStyle } from './element-style.js';

const TEXT_CONTROLS: ReadonlySet<string> = new Set(['input', 'textarea', 'select']);
/** Input types that show no text of their own. Source: HTML §15.5.4 to §15.5.11, rendering of form controls. */
const TEXTLESS_INPUTS: ReadonlySet<string> = new Set(['checkbox', 'radio', 'range', 'color', 'image', 'hidden']);

/** Whether an element or pseudo-element shows text of its own, so that its text colour is seen. */
export function showsText({ element, pseudo }: Pick<ElementStyle, 'element' | 'pseudo'>): boolean {
  if (pseudo !== '' || element.ownText.trim() !== '') return true;
  return (
    TEXT_CONTROLS.has(element.localName) &&
    !(element.localName === 'input' && TEXTLESS_INPUTS.has((element.attributes.get('type') ?? '').toLowerCase()))
  );
}

/** Contrast ratio WCAG 2.2 (1.4.3) asks of a text: less from 24 px on, or from 18.66 px when it is bold. */
export function wantedRatio(style: ElementStyle): number {
  const size = style.fontSize();
  const weight = Number(style.resolved('font-weight'));
  return size >= 24 || (size >= 18.66 && weight >= 700) ? RATIOS.largeText : RATIOS.text;
}

/** The strings of a resolved `content`. */
export function stringsIn(content: string): string[] {
  return content.split('"').filter((_, i) => i % 2 === 1);
}

/** Whether what is generated is read, not only seen: two letters or digits or more. */
export function generatesWords(style: ElementStyle): boolean {
  return (
    (style.pseudo === 'before' || style.pseudo === 'after') &&
    stringsIn(style.resolved('content')).some((string) => /[\p{L}\p{N}]{2}/u.test(string))
  );
}
