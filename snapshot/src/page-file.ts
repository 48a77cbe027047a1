import { takeSnapshot, type Snapshot, type SnapshotOptions } from './take-snapshot.js';

/**
 * Saves the page it runs in as one HTML file, pictures and stylesheets in it, by the snapshot that it is handed. Runs in the page, by
 * itself; asks for nothing but what the page shows, and sends nothing.
 */
async function savePage(take: (options: SnapshotOptions) => Promise<Snapshot>): Promise<void> {
  const MOST_BYTES = 3_000_000;
  const MOST_ALL = 30_000_000;
  const { html, title, lost } = await take({ isWhole: true, isScripted: true, frames: [] });
  const missing = [...lost];
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
    alert(`Saved. Not in the file: ${missing.slice(0, 8).join(', ')}${missing.length > 8 ? ' and more' : ''}.`);
}

/** Script that saves the page it runs in as one file; for a console. */
export function pageFileScript(): string {
  return `(${savePage.toString()})(${takeSnapshot.toString()})`;
}

/** The same as the address of a bookmark. Source: HTML §7.4.2.3.2, the `javascript:` URL special case. */
export function pageFileBookmark(): string {
  return `javascript:${encodeURIComponent(`void ${pageFileScript()}`)}`;
}
