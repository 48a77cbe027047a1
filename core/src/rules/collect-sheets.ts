import { message } from '../message/message.js';
import type { ElementNode, PageDocument, TreeRoot } from '../dom/tree.js';
import type { Problem } from '../problem.js';
import type { LoadSheet, Sheet } from './sheet.js';
import { resolvePath } from './resolve-path.js';

export interface CollectedSheets {
  readonly sheets: readonly Sheet[];
  readonly problems: readonly Problem[];
}

/**
 * The author stylesheets of a page in cascade order: `<link rel=stylesheet>` and `<style>`, tree by tree.
 * Alternate sheets other than the preferred set come out disabled.
 * Source: CSSOM §6.2, HTML §4.2.4 and §4.2.6.
 * @param path path of the page within the site, against which `href` is resolved.
 */
export function collectSheets(document: PageDocument, path: string, loadSheet: LoadSheet): CollectedSheets {
  const problems: Problem[] = [];
  const sheets: Sheet[] = [];
  const counts = new Map<TreeRoot, number>();
  let preferred: string | null = null;
  for (const element of document.elements) {
    const kind = sheetKind(element);
    if (!kind) continue;
    const media = element.attributes.get('media') ?? '';
    const title = element.attributes.get('title') ?? '';
    const alternate = kind === 'link' && tokensOf(element, 'rel').includes('alternate');
    if (title !== '' && !alternate && preferred === null && element.root.kind === 'document') preferred = title;
    const disabled =
      (kind === 'link' && element.attributes.has('disabled')) ||
      (title !== '' && title !== preferred && element.root.kind === 'document');
    const shared = { origin: 'author' as const, media, title, tree: element.root, owner: element, disabled };
    if (kind === 'style') {
      const count = (counts.get(element.root) ?? 0) + 1;
      counts.set(element.root, count);
      const where = element.root.host ? `${path} <${element.root.host.localName}> shadow` : path;
      sheets.push({ ...shared, name: `${where} <style> ${count}`, text: element.ownText });
      continue;
    }
    const href = element.attributes.get('href')?.trim() ?? '';
    const target = resolvePath(path, href);
    const text = target === null ? null : loadSheet(target);
    if (text === null) {
      problems.push({ code: 'missing-sheet', reason: message('css.stylesheet-was-not-captured', { href }), loc: null });
      continue;
    }
    sheets.push({ ...shared, name: target as string, text });
  }
  return { sheets, problems };
}

function sheetKind(element: ElementNode): 'link' | 'style' | null {
  if (element.localName === 'style') {
    const type = element.attributes.get('type')?.toLowerCase() ?? '';
    return type === '' || type === 'text/css' ? 'style' : null;
  }
  if (
    element.localName !== 'link' ||
    element.namespace !== 'html' ||
    !tokensOf(element, 'rel').includes('stylesheet') ||
    !element.attributes.get('href')
  )
    return null;
  const type = element.attributes.get('type')?.toLowerCase() ?? '';
  return type === '' || type.startsWith('text/css') ? 'link' : null;
}

function tokensOf(element: ElementNode, attribute: string): string[] {
  return (element.attributes.get(attribute) ?? '').toLowerCase().split(/\s+/);
}
