import type { LeftOutFile } from '@upper-veneer/contract';
import {
  message,
  cleanPage,
  pageAddresses,
  resolvePath,
  upTo,
  withCssAddresses,
  type PageAddress,
} from '@upper-veneer/core';
import { extension as extensionOf } from 'mime-types';
import type { NewAsset } from '../db/assets.js';
import type { NewPage } from '../db/pages.js';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { decodeCss, decodeHtml } from './decode-text.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS } from './limits.js';
import { hasSignature, kindOf, mediaTypeOf } from './media-type.js';
import { isUrl, relativeAddress, sitePathOf, withoutFragment } from '@upper-veneer/browser';

/** Pages and files as they are stored. */
export interface AssembledSite {
  readonly pages: readonly NewPage[];
  readonly assets: readonly NewAsset[];
  readonly leftOut: readonly LeftOutFile[];
}

interface Known {
  readonly file: CapturedFile;
  readonly mediaType: string;
  readonly path: string;
}

/**
 * Makes captured files a site: pages without what runs, text in UTF-8, every address leading to a stored file or nowhere.
 * @throws {CaptureProblem} `no-page` when no page is among them.
 */
export function assembleSite(capture: Capture, report: ReportProgress): AssembledSite {
  const leftOut: LeftOutFile[] = [...capture.leftOut];
  const known = readFiles(capture, leftOut);
  const wanted = pagesOf(capture, known);
  if (wanted.length === 0)
    throw new CaptureProblem(
      'no-page',
      leftOut.length === 0
        ? message('capture.no-html-page')
        : message('capture.no-html-page-but', {
            leftOut: leftOut.slice(0, 3).map(({ path, reason }) => message('left-out.with-reason', { path, reason })),
          }),
    );
  if (wanted.length > LIMITS.pages)
    throw new CaptureProblem(
      'too-many',
      message('capture.too-many-pages', { pages: wanted.length, most: LIMITS.pages }),
    );
  const pagePaths = new Set(wanted.map(({ path }) => path));
  const missing = new Map<string, LeftOutFile>();
  const lookUp = (address: string): Known | null => known.get(address) ?? known.get(upTo(address, '?')) ?? null;
  const pages: NewPage[] = [];
  const framed = new Map<string, Known>();
  let encoding = '';
  wanted.forEach((page, i) => {
    report(message('stage.cleaning'), i, wanted.length);
    const text = decodeHtml(page.file.body, page.file.charset);
    encoding ||= text.encoding;
    if (text.unreadable > 0)
      leftOut.push({
        path: page.path,
        reason: message('left-out.characters', { count: text.unreadable, encoding: text.encoding }),
      });
    const { base } = pageAddresses(text.text);
    const from = baseOf(page.file.base ?? page.file.address, base);
    const cleaned = cleanedOrNull(text.text, (found) => {
      const address = resolveAddress(from, found.address);
      const target = address === null ? null : lookUp(address);
      // What a frame shows is no page of the site, but kept as it came: its part is drawn by it.
      if (found.kind === 'frame' && target && !pagePaths.has(target.path) && kindOf(target.mediaType) === 'page') {
        framed.set(target.path, target);
        return relativeAddress(page.path, target.path);
      }
      if (target && (pagePaths.has(target.path) ? found.kind === 'page' : kindOf(target.mediaType) === 'asset'))
        return relativeAddress(page.path, target.path) + fragmentOf(found.address);
      return unresolved(found, address, missing);
    });
    if (!cleaned) {
      leftOut.push({
        path: page.path,
        reason: message('left-out.reads-otherwise'),
      });
      return;
    }
    const { html, title, scripts } = cleaned;
    if (scripts > 0) leftOut.push({ path: page.path, reason: message('left-out.scripts', { scripts }) });
    pages.push({
      name: page.file.name ? toldApart(page.file.name, pages) : pageName(title, page.path, pages),
      path: page.path,
      html,
      source: page.file.base ?? page.file.address,
    });
  });
  if (pages.length === 0)
    throw new CaptureProblem('unsafe', message('capture.reads-otherwise', { path: wanted[0].path }));
  const assets: NewAsset[] = [];
  const stored = new Set<string>();
  for (const { file, mediaType, path } of known.values()) {
    if (kindOf(mediaType) !== 'asset' || stored.has(path)) continue;
    stored.add(path);
    assets.push({
      path,
      mediaType,
      body: mediaType === 'text/css' ? cssBody(file, path, encoding, lookUp, missing, leftOut) : file.body,
    });
  }
  for (const own of framed.values()) {
    const body = framedBody(own, lookUp, missing);
    if (body) assets.push({ path: own.path, mediaType: 'text/html', body });
    else leftOut.push({ path: own.path, reason: message('left-out.frame-reads-otherwise') });
  }
  return { pages, assets, leftOut: [...leftOut, ...missing.values()] };
}

/** A framed document without what runs; `null` where scripts are smuggled in. What it frames itself is left out. */
function framedBody(
  { file, path }: Known,
  lookUp: (address: string) => Known | null,
  missing: Map<string, LeftOutFile>,
): Buffer | null {
  const { text } = decodeHtml(file.body, file.charset);
  const from = baseOf(file.base ?? file.address, pageAddresses(text).base);
  const cleaned = cleanedOrNull(text, (found) => {
    const address = resolveAddress(from, found.address);
    const target = address === null ? null : lookUp(address);
    if (target && kindOf(target.mediaType) === 'asset')
      return relativeAddress(path, target.path) + fragmentOf(found.address);
    return unresolved(found, address, missing);
  });
  return cleaned && Buffer.from(cleaned.html, 'utf8');
}

function cleanedOrNull(html: string, resolve: Parameters<typeof cleanPage>[1]): ReturnType<typeof cleanPage> | null {
  try {
    return cleanPage(html, resolve);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** Files by address, those that no site needs or that are not what they say left out. */
function readFiles(capture: Capture, leftOut: LeftOutFile[]): Map<string, Known> {
  const known = new Map<string, Known>();
  const paths = new Map<string, string>();
  const home = homeOf(capture);
  for (const file of capture.files) {
    const mediaType = mediaTypeOf(file.address, file.mediaType, file.body);
    const kind = kindOf(mediaType);
    if (kind === 'script' || kind === 'other') {
      leftOut.push({
        path: file.address,
        reason:
          kind === 'script'
            ? message('left-out.script')
            : mediaType === ''
              ? message('left-out.unknown-kind')
              : message('left-out.not-needed', { type: mediaType }),
      });
      continue;
    }
    if (!hasSignature(mediaType, file.body)) {
      leftOut.push({ path: file.address, reason: message('left-out.other-type', { type: mediaType }) });
      continue;
    }
    const extension = extensionOf(mediaType);
    let path = sitePathOf(file.address, home, extension ? `.${extension}` : '');
    // Two addresses must not land on one path; a frame's document may be known by two.
    const same = capture.files.find((other) => other !== file && other.body === file.body && known.has(other.address));
    if (same) path = known.get(same.address)?.path ?? path;
    else
      for (let number = 2; paths.has(path) && paths.get(path) !== file.address; number += 1)
        path = path.replace(/(?:~\d+)?(\.[^./]*)?$/, `~${number}$1`);
    paths.set(path, file.address);
    known.set(withoutFragment(file.address), { file, mediaType, path });
  }
  return known;
}

function homeOf({ pages, files }: Capture): string {
  const first = pages[0] ?? files[0]?.address ?? '';
  try {
    return isUrl(first) ? new URL(first).origin : '';
  } catch {
    return '';
  }
}

function pagesOf(capture: Capture, known: ReadonlyMap<string, Known>): Known[] {
  const all = [...known.values()].filter(({ mediaType }) => kindOf(mediaType) === 'page');
  if (capture.pages.length > 0) return all.filter(({ file }) => capture.pages.includes(file.address));
  const isIndex = (path: string): boolean => /^(?:.*\/)?index\.x?html?$/i.test(path);
  // Documents that a saved page brought for its frames lie in the folder beside it.
  return all
    .filter(({ path }) => !/_files\//.test(path))
    .sort(
      (a, b) =>
        Number(isIndex(b.path)) - Number(isIndex(a.path)) ||
        a.path.split('/').length - b.path.split('/').length ||
        (a.path < b.path ? -1 : 1),
    );
}

function baseOf(address: string, base: string): string {
  if (base === '') return address;
  if (isUrl(address)) return URL.canParse(base, address) ? new URL(base, address).href : address;
  return isUrl(base) || base.startsWith('//') ? address : resolvePath(address, base) + (base.endsWith('/') ? '/' : '');
}

/** Address that a reference leads to, without its fragment; `null` when it cannot be read. */
export function resolveAddress(from: string, reference: string): string | null {
  if (isUrl(reference)) return withoutFragment(reference);
  if (isUrl(from)) return URL.canParse(reference, from) ? withoutFragment(new URL(reference, from).href) : null;
  return reference.startsWith('//') ? null : resolvePath(from, reference);
}

function fragmentOf(address: string): string {
  return address.slice(withoutFragment(address).length);
}

function unresolved(
  { address: written, kind }: PageAddress,
  address: string | null,
  missing: Map<string, LeftOutFile>,
): string | null {
  // Links keep where they lead: selectors may ask for it, and nothing here follows it.
  if (kind === 'page') return written;
  if (kind === 'frame' && !/^about:/i.test(written))
    missing.set(written, { path: written, reason: message('left-out.frame') });
  if (kind === 'stylesheet' || kind === 'file')
    missing.set(address ?? written, {
      path: (address ?? written).slice(0, 400),
      reason: message(kind === 'stylesheet' ? 'left-out.stylesheet-missing' : 'left-out.file-missing'),
    });
  return null;
}

function cssBody(
  file: CapturedFile,
  path: string,
  encoding: string,
  lookUp: (address: string) => Known | null,
  missing: Map<string, LeftOutFile>,
  leftOut: LeftOutFile[],
): Buffer {
  const { text, unreadable, encoding: own } = decodeCss(file.body, file.charset, encoding);
  if (unreadable > 0)
    leftOut.push({ path, reason: message('left-out.characters', { count: unreadable, encoding: own }) });
  return Buffer.from(
    withCssAddresses(text, ({ address: written, kind }) => {
      if (/^(?:data:|#|about:)/i.test(written)) return null;
      const address = resolveAddress(file.base ?? file.address, written);
      const target = address === null ? null : lookUp(address);
      if (target) return relativeAddress(path, target.path) + fragmentOf(written);
      missing.set(address ?? written, {
        path: (address ?? written).slice(0, 400),
        reason: message(kind === 'stylesheet' ? 'left-out.stylesheet-missing' : 'left-out.file-missing'),
      });
      return isUrl(written) || written.startsWith('//') ? 'about:invalid' : null;
    }),
    'utf8',
  );
}

/** A page's name: its title up to the site's own name, else its file's; told apart by a number. */
function pageName(title: string, path: string, others: readonly { readonly name: string }[]): string {
  const short = title.split(/\s[|–—·:-]\s|:\s/)[0].trim();
  const file =
    path
      .split('/')
      .pop()
      ?.replace(/\.[^.]*$/, '') ?? path;
  return toldApart((short || file || 'Page').slice(0, 60), others);
}

function toldApart(base: string, others: readonly { readonly name: string }[]): string {
  let name = base;
  for (let number = 2; others.some((other) => other.name === name); number += 1) name = `${base} ${number}`;
  return name;
}
