import { createHash } from 'node:crypto';
import { posix } from 'node:path';
import { upTo } from '@upper-veneer/core';

const URL_START = /^[a-z][a-z0-9+.-]*:/i;

/** Whether an address is a URL rather than a path in an archive. */
export function isUrl(address: string): boolean {
  return URL_START.test(address);
}

/** Address without its fragment. */
export function withoutFragment(address: string): string {
  return upTo(address, '#');
}

/**
 * Path within the site for a captured address: an archive's own path; of a URL its path, under its host's name when
 * that is not the page's own. A query becomes a short mark in the name.
 * @param home origin of the page, e.g. `http://localhost:4311`; empty for archives.
 */
export function sitePathOf(address: string, home: string, extension: string): string {
  if (!isUrl(address)) return posix.normalize(address).replace(/^(?:\.\/|\/)+/, '');
  if (/^cid:/i.test(address)) return `parts/${markOf(address)}${extension}`;
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return `parts/${markOf(address)}${extension}`;
  }
  const path = decoded(url.pathname)
    .replace(/^\/+/, '')
    .replace(/\/{2,}/g, '/')
    .split('/')
    .filter((segment) => segment !== '..' && segment !== '.')
    .join('/');
  const named = path === '' || path.endsWith('/') ? `${path}index${extension || '.html'}` : path;
  const withQuery = url.search === '' ? named : named.replace(/(\.[^./]*)?$/, (end) => `-${markOf(url.search)}${end}`);
  const withExtension = posix.extname(withQuery) === '' && extension !== '' ? `${withQuery}${extension}` : withQuery;
  return (
    url.origin === home || url.origin === 'null' ? withExtension : `${url.host.replaceAll(':', '-')}/${withExtension}`
  ).slice(0, 300);
}

/** Relative address, as a browser resolves it, from one path of the site to another. */
export function relativeAddress(from: string, to: string): string {
  const relative = posix.relative(posix.dirname(from), to);
  return relative
    .split('/')
    .map((segment) => (segment === '..' ? segment : encodeURIComponent(segment)))
    .join('/');
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

function markOf(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 8);
}
