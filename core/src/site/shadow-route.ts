import { elementOf, pageOf, viewIn, type SiteModel } from './site-model.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { OverrideWish } from './plan-override.js';

/** The wish as CSS can fulfil it, or why it cannot. */
export type Route = { readonly ok: true; readonly wish: OverrideWish } | { readonly ok: false; readonly reason: string };

/**
 * How a wish behind a shadow root can be fulfilled: by the name of its part where its maker gives one, else by a custom
 * property that its present value comes from, set on the host. Wishes in the page itself are as they are.
 * Source: CSS Shadow Parts 1, and CSS Variables 1: custom properties inherit through shadow roots.
 */
export function routeOf(site: SiteModel, wish: OverrideWish): Route {
  const page = pageOf(site, wish.pageId);
  const element = elementOf(page, wish.element);
  const { host } = element.root;
  if (!host) return { ok: true, wish };
  if (host.root.host) return { ok: false, reason: 'It lies behind two shadow roots, which no selector of the page goes through' };
  if (element.attributes.has('part')) return { ok: true, wish };
  const style = viewIn(page, element, wish.state, wish.width).style(element, wish.pseudo);
  const [longhand] = longhandsOfProperty(wish.property);
  const [winner] = style.ranked(longhand);
  const written = winner?.entry.value.kind === 'variable' ? winner.entry.value.text : '';
  const name = /^\s*var\(\s*(--[\w-]+)\s*(?:,[^)]*)?\)\s*$/.exec(written)?.[1];
  if (name === undefined) return { ok: false, reason: 'It lies behind a shadow root: its maker gives it no part name, and no custom property carries this value' };
  return { ok: true, wish: { ...wish, element: host.number, pseudo: '', state: 'rest', property: name, reach: wish.reach === 'everywhere' ? 'alike' : wish.reach } };
}
