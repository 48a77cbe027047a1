import { message, say, type Code } from '@upper-veneer/words';
import { takeSnapshot, type Snapshot, type SnapshotOptions } from './take-snapshot.js';

/**
 * Saves the page it runs in as one HTML file, pictures and stylesheets in it, by the snapshot that it is handed. Runs in the page, by
 * itself; asks for nothing but what the page shows, and sends nothing.
 * @param words by code, the names of values in braces.
 */
async function savePage(
  take: (options: SnapshotOptions) => Promise<Snapshot>,
  words: Readonly<Record<string, string>>,
): Promise<void> {
  const MOST_BYTES = 3_000_000;
  const MOST_ALL = 30_000_000;
  const { html, title, lost } = await take({ isWhole: true, isScripted: true, frames: [] });
  const tell = (code: Code, values: Readonly<Record<string, unknown>> = {}): string =>
    words[code].replaceAll(/\{(\w+)\}/g, (_whole, name: string) => String(values[name]));
  const missing = lost.map(({ code, values }) => tell(code, values));
  const inAttribute = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('"', '&quot;');
  const addresses = new Set<string>();
  for (const { currentSrc } of document.images) if (/^https?:/.test(currentSrc)) addresses.add(currentSrc);
  for (const [, address] of html.matchAll(/url\("(https?:[^"\\]{1,2000})"\)/g)) addresses.add(address);
  let whole = html;
  let all = 0;
  for (const address of addresses) {
    try {
      const body = await (await fetch(address, { cache: 'force-cache' })).blob();
      all += body.size;
      if (body.size > MOST_BYTES || all > MOST_ALL) throw new Error('too large');
      const data = await new Promise<string>((done, failed) => {
        const reader = new FileReader();
        reader.onload = () => done(String(reader.result));
        reader.onerror = () => failed(reader.error ?? new Error('unreadable'));
        reader.readAsDataURL(body);
      });
      whole = whole
        .replaceAll(`src="${inAttribute(address)}"`, () => `src="${data}"`)
        .replaceAll(`url("${address}")`, () => `url("${data}")`);
    } catch {
      missing.push(address);
    }
  }
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([whole], { type: 'text/html' }));
  link.download = `${
    (title || 'page')
      .replaceAll(/[^\p{L}\p{N} _-]/gu, '')
      .slice(0, 60)
      .trim() || 'page'
  }.html`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  if (missing.length > 0)
    alert(
      tell(missing.length > 8 ? 'lost.from-file-more' : 'lost.from-file', { list: missing.slice(0, 8).join(', ') }),
    );
}

/** All that is told in the page it runs in, where no words are at hand. */
const TOLD: readonly Code[] = [
  'lost.canvas',
  'lost.closed-tree',
  'lost.frame',
  'lost.frame-unnamed',
  'lost.from-file',
  'lost.from-file-more',
  'lost.half-ticked',
  'lost.nested',
  'lost.picture',
  'lost.stylesheet',
];
const VALUES = { address: '{address}', frame: '{frame}', list: '{list}', name: '{name}' };

/** Script that saves the page it runs in as one file, in the words of this language; for a console. */
export function pageFileScript(): string {
  const words = Object.fromEntries(TOLD.map((code) => [code, say(message(code, VALUES))]));
  return `(${savePage.toString()})(${takeSnapshot.toString()}, ${JSON.stringify(words)})`;
}

/** The same as the address of a bookmark. Source: HTML §7.4.2.3.2, the `javascript:` URL special case. */
export function pageFileBookmark(): string {
  return `javascript:${encodeURIComponent(`void ${pageFileScript()}`)}`;
}
