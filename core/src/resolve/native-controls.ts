import type { StyleSource } from './style-source.js';

/**
 * Values that Chromium gives native controls whatever the cascade says, while they keep their native appearance:
 * check boxes and radio buttons have no border, menus no line height of their own.
 * Source: CSS UI 4 §7.2 leaves this to the browser; the values are Chromium's, read by `getComputedStyle`.
 * @returns `null` where the cascade decides.
 */
export function nativeControlValue(property: string, style: StyleSource): string | null {
  const { element, pseudo } = style;
  if (pseudo !== '' || element.namespace !== 'html') return null;
  if (element.localName === 'select') {
    if (
      property !== 'line-height' ||
      element.attributes.has('multiple') ||
      Number(element.attributes.get('size') ?? 1) > 1
    )
      return null;
    return isNative(style) ? 'normal' : null;
  }
  if (element.localName !== 'input' || !property.startsWith('border-')) return null;
  const type = element.attributes.get('type')?.toLowerCase();
  if ((type !== 'checkbox' && type !== 'radio') || !isNative(style)) return null;
  if (property.endsWith('-style')) return 'none';
  if (property.endsWith('-width')) return '0px';
  if (property.endsWith('-radius')) return type === 'radio' ? '50%' : '0px';
  return property.endsWith('-color') ? 'currentcolor' : null;
}

const CONTROLS: ReadonlySet<string> = new Set(['button', 'input', 'select', 'textarea', 'meter', 'progress']);
const REPLACED: ReadonlySet<string> = new Set([
  'input',
  'select',
  'textarea',
  'meter',
  'progress',
  'img',
  'video',
  'audio',
  'canvas',
  'iframe',
  'object',
  'embed',
  'svg',
  'br',
]);

/**
 * The display a native control or replaced element comes to: controls hold no table or list item, and what is
 * replaced has no contents to show in its place.
 * Source: HTML §15.5 Form controls, CSS Display 3 Appendix B; the rest as Chromium has it.
 */
export function adjustNativeDisplay(display: string, style: StyleSource): string {
  const { element, pseudo } = style;
  if (pseudo !== '' || (element.namespace !== 'html' && element.localName !== 'svg')) return display;
  if (display === 'contents') return REPLACED.has(element.localName) ? 'none' : display;
  if (
    !CONTROLS.has(element.localName) ||
    (element.localName === 'input' && element.attributes.get('type')?.toLowerCase() === 'file')
  )
    return display;
  const appearance = style.computed('appearance');
  if (appearance.kind === 'text' && appearance.text === 'none') return display;
  if (display === 'inline' || display === 'inline-table' || /^table-/.test(display)) return 'inline-block';
  return display === 'table' || display === 'list-item' ? 'block' : display;
}

/** Whether an element is a block whatever it says: a legend (HTML §15.3.13). */
export function isBlockByKind({ element, pseudo }: StyleSource): boolean {
  return pseudo === '' && element.namespace === 'html' && element.localName === 'legend';
}

function isNative(style: StyleSource): boolean {
  const appearance = style.computed('appearance');
  return appearance.kind === 'text' && appearance.text !== 'none';
}
