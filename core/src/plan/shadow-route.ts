import { message, type Message } from '../message/message.js';
import { declarationOf } from '../resolve/feeding-properties.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { LONGHANDS } from '../properties/longhands.js';
import type { ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { parseColor } from '../values/parse-color.js';
import { variablesIn } from '../values/variables-in.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';

/** The wish as CSS can fulfil it, or why it cannot. */
export type Route =
  { readonly ok: true; readonly wish: OverrideWish } | { readonly ok: false; readonly reason: Message };

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
  if (host.root.host) return { ok: false, reason: message('plan.lies-behind-two-shadow') };
  if (element.attributes.has('part')) return { ok: true, wish };
  const style = viewIn(page, element, wish.state, wish.width).style(element, wish.pseudo);
  const [longhand] = longhandsOfProperty(wish.property);
  const value = style.ranked(longhand)[0]?.entry.value;
  const name =
    value?.kind === 'variable' ? carrierOf(style, value.text, host, LONGHANDS.get(longhand)?.kind === 'color') : null;
  if (name === null)
    return {
      ok: false,
      reason: message('plan.lies-behind-shadow-root'),
    };
  const { element: inner, pseudo, state, property } = wish;
  return {
    ok: true,
    wish: {
      ...wish,
      element: host.number,
      pseudo: '',
      state: 'rest',
      property: name,
      reach: wish.reach === 'everywhere' ? 'alike' : wish.reach,
      through: { element: inner, pseudo, state, property },
    },
  };
}

/** A value that is one `var()` with its fallback, if any. */
const ONE_VARIABLE = /^\s*var\(\s*--[^\s,)]+\s*(?:,(?:[^()]|\([^()]*\))*)?\)\s*$/i;

/**
 * The custom property of the host that a value comes from; `null` where none does. One that an element behind the root
 * declares itself cannot be set from outside, what that takes its value from may be.
 */
function carrierOf(style: ElementStyle, text: string, host: ElementNode, isColor: boolean, depth = 0): string | null {
  const names = variablesIn(text);
  // In a shorthand with other words, only the one that holds a colour can be meant.
  const meant = ONE_VARIABLE.test(text)
    ? names.slice(0, 1)
    : names.filter((name) => parseColor(style.resolved(name).trim()) !== null);
  if (meant.length !== 1 || (!ONE_VARIABLE.test(text) && !isColor) || depth > 20) return null;
  const [name] = meant;
  const declared = declarationOf(style, name);
  if (!declared || declared.style.element.root !== host.shadowRoot) return name;
  const { value } = declared.declared.entry;
  return value.kind === 'wide' ? null : carrierOf(style, value.text, host, isColor, depth + 1);
}
