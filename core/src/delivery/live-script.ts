/** How often a page asks whether the draft has changed, ms. */
const EVERY_MS = 600;
/** Under which a page knows that the draft is laid on. */
const NAME = 'upperVeneerLive';

/**
 * Script that lays the draft of an address on the page it runs in, follows each change, shows a plain badge, and takes all of it off
 * again: by the badge, or run once more. It leaves nothing behind, reads nothing of the page and sends nothing.
 * @param address of the draft's stylesheet.
 */
export function liveScript(address: string): string {
  return `(() => {
  const name = '${NAME}';
  if (window[name]) return window[name]();
  const style = document.createElement('style');
  const host = document.createElement('div');
  const root = host.attachShadow({ mode: 'closed' });
  const badge = document.createElement('button');
  badge.setAttribute('style', 'all: initial; position: fixed; left: 12px; bottom: 12px; z-index: 2147483647; padding: 8px 12px; border: 2px solid #fff; outline: 2px solid #000; background: #000; color: #fff; font: 14px/1.3 sans-serif; cursor: pointer');
  const say = (words) => { badge.textContent = words + ' · take off'; };
  let last = null;
  const ask = async () => {
    try {
      const answer = await fetch(${JSON.stringify(address).replaceAll('</', '<\\/')}, { cache: 'no-store', credentials: 'omit' });
      const css = answer.ok ? await answer.text() : '';
      if (!window[name]) return;
      if (css !== last) { style.textContent = last = css; }
      say(answer.ok ? 'Draft laid on' : 'The draft was switched off');
    } catch { if (window[name]) say('The draft cannot be reached'); }
    if (style.isConnected && style !== document.head.lastElementChild) document.head.append(style);
  };
  const timer = setInterval(ask, ${EVERY_MS});
  window[name] = () => { clearInterval(timer); style.remove(); host.remove(); delete window[name]; };
  badge.onclick = window[name];
  say('Fetching the draft');
  root.append(badge);
  document.head.append(style);
  document.documentElement.append(host);
  ask();
})()`;
}

/** The same as the address of a bookmark. Source: HTML §7.4.2.3.2, the `javascript:` URL special case. */
export function liveBookmark(address: string): string {
  const script = liveScript(address).replaceAll(/\n\s*/g, ' ');
  return `javascript:${encodeURIComponent(script)}`;
}
