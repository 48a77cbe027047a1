import { upTo } from '../syntax/text-ends.js';

/**
 * Path within the site that a reference leads to.
 * @param base path of the referring file, without a leading slash.
 * @returns `null` for another origin, a `data:` address, or one that cannot be read.
 */
export function resolvePath(base: string, reference: string): string | null {
  if (/^[a-z][a-z0-9+.-]*:/i.test(reference) || reference.startsWith('//')) return null;
  const clean = upTo(reference, '?#');
  const segments = clean.startsWith('/') ? [] : base.split('/').slice(0, -1);
  for (const segment of clean.split('/')) {
    if (segment === '' || segment === '.') continue;
    if (segment === '..') segments.pop();
    else segments.push(decode(segment));
  }
  return segments.join('/');
}

function decode(segment: string): string {
  try {
    return decodeURIComponent(segment);
  } catch {
    return segment;
  }
}
