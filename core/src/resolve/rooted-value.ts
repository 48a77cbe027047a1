import { resolvePath } from '../rules/resolve-path.js';
import { VENEER_SHEET_NAME } from './page.js';
import { withCssAddresses } from '../syntax/css-addresses.js';
import type { ElementStyle } from './element-style.js';
import type { Page } from './page.js';

/**
 * A longhand as it resolves, with addresses of files of the site from the site's root, where the veneer stands: in its own sheet
 * `../img/a.png` leads from that sheet. Source: CSS Values 4 §4.5.
 */
export function rootedValue(style: ElementStyle, page: Page, longhand: string): string {
  const css = style.resolved(longhand);
  if (!/url\(|image-set\(/i.test(css)) return css;
  const [decided] = style.seen(longhand).ranked(longhand);
  const base = decided ? baseOf(decided.block.rule, page.path) : page.path;
  return withCssAddresses(css, ({ address }) => {
    if (address.startsWith('#')) return null;
    const path = resolvePath(base, address);
    if (path === null) return null;
    const rest = /[?#]/.exec(address);
    return path.split('/').map(encodeURIComponent).join('/') + (rest ? address.slice(rest.index) : '');
  });
}

/** Path from which the addresses in a rule lead. */
function baseOf(
  rule: { readonly sheet: { readonly name: string; readonly owner: { readonly localName: string } | null } } | null,
  pagePath: string,
): string {
  if (rule === null) return pagePath;
  const { name, owner } = rule.sheet;
  if (name === VENEER_SHEET_NAME) return '';
  // What a `<style>` imports has a path of its own.
  return owner?.localName === 'style' && name.startsWith(`${pagePath} <`) ? pagePath : name;
}
