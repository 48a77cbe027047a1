import { decidingDeclaration } from '../census/paintings.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { sourceOf } from '../resolve/explain.js';
import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { pageOf, type SiteModel, type SiteSource } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { paintedAsMatched } from './painted-by.js';
import { fillOver } from './fill-over.js';
import type { MatchProposal } from './proposal.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** A picture file that a scope shows: CSS reaches none of the colours in it. */
export interface PictureFile {
  /** Path in the site. */
  readonly path: string;
  /** Whether its names say that it is a logo. */
  readonly isLogo: boolean;
  /** The first place that shows it. */
  readonly spot: Spot;
  readonly places: number;
  /** What it stands on, as it arrived and as matched, each pair once; none where its ground cannot be told. */
  readonly grounds: readonly { readonly arrived: string; readonly matched: string; readonly places: number }[];
}

/** Names that makers of pages give a site's logo (common practice). */
const LOGO_NAMES = /logo|wordmark|brand/i;
const BASE = 'http://site.invalid/';
/** Properties that show a picture file. */
const SHOWING = ['background-image', 'list-style-image', 'border-image-source'] as const;

/** Picture files of a scope, those of logos first, then by how many places show them. */
export function pictureFiles(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  width: number,
): PictureFile[] {
  const files = new Map<string, { spot: Spot; isLogo: boolean; places: number; grounds: Map<string, number> }>();
  for (const pageId of pagesOf(site, scope)) {
    const page = withVeneer(pageOf(site, pageId), '');
    const view = new StyleView(page, { environment: { width } });
    const painted = paintedAsMatched(proposal, pageId);
    const isIn = inScope(site, scope, pageId);
    for (const element of page.document.elements) {
      if (!isIn(element)) continue;
      for (const { address, from, isOwn } of picturesOf(view, element, site.source.stylesheets)) {
        const path = pathOf(address, from ?? page.path);
        if (path === null) continue;
        const file = files.get(path) ?? {
          spot: { pageId, element: element.number },
          isLogo: false,
          places: 0,
          grounds: new Map<string, number>(),
        };
        file.isLogo ||= isLogo(element, path);
        file.places += 1;
        files.set(path, file);
        const under = isOwn ? element.flatParent : element;
        if (!under) continue;
        const { ground, doubts } = surroundingsOf(view, under);
        if (isOwn && doubts.length > 0) continue;
        const matched = fillOver(under, (node, property) => painted(pageId, node.number, property), view) ?? ground;
        const key = `${hexOf(ground)} ${hexOf(matched)}`;
        file.grounds.set(key, (file.grounds.get(key) ?? 0) + 1);
      }
    }
  }
  return [...files]
    .map(([path, { grounds, ...file }]) => ({
      path,
      ...file,
      grounds: [...grounds].map(([key, places]) => {
        const [arrived, matched] = key.split(' ');
        return { arrived, matched, places };
      }),
    }))
    .sort((a, b) => Number(b.isLogo) - Number(a.isLogo) || b.places - a.places || (a.path < b.path ? -1 : 1));
}

interface ShownPicture {
  readonly address: string;
  /** Path of the sheet that names it; `null` for the page's own. */
  readonly from: string | null;
  /** Whether the element is the picture, rather than painted with it. */
  readonly isOwn: boolean;
}

function picturesOf(view: StyleView, element: ElementNode, sheets: SiteSource['stylesheets']): ShownPicture[] {
  const found: ShownPicture[] = [];
  const isImage =
    element.localName === 'img' || (element.localName === 'input' && element.attributes.get('type') === 'image');
  const own = isImage
    ? element.attributes.get('src')
    : element.localName === 'video'
      ? element.attributes.get('poster')
      : null;
  if (own) found.push({ address: own, from: null, isOwn: true });
  const style = view.style(element);
  for (const property of SHOWING) {
    const value = style.resolved(property);
    if (!value.includes('url(')) continue;
    const { decided } = decidingDeclaration(style, property);
    const source = decided && sourceOf(decided.block, decided.entry.declaration.start);
    const from = source && Object.hasOwn(sheets, source.sheet) ? source.sheet : null;
    for (const address of addressesIn(value)) found.push({ address, from, isOwn: false });
  }
  return found;
}

/** Addresses of `url()` in a resolved value, in which they are quoted. */
function addressesIn(value: string): string[] {
  const found: string[] = [];
  for (let at = value.indexOf('url("'); at >= 0; at = value.indexOf('url("', at + 5)) {
    const end = value.indexOf('")', at);
    if (end > at) found.push(value.slice(at + 5, end));
  }
  return found;
}

/** Path in the site of what an address names from a file; `null` for what is elsewhere or written in the page. */
function pathOf(address: string, from: string): string | null {
  if (!URL.canParse(address, BASE + from)) return null;
  const url = new URL(address, BASE + from);
  if (url.origin !== new URL(BASE).origin) return null;
  try {
    return decodeURIComponent(url.pathname.slice(1)) || null;
  } catch {
    return null;
  }
}

function isLogo(element: ElementNode, path: string): boolean {
  const name = path.slice(path.lastIndexOf('/') + 1);
  return (
    LOGO_NAMES.test(name) ||
    lineageOf(element)
      .slice(-2)
      .some(({ id, classes, attributes }) =>
        [id ?? '', ...classes, attributes.get('alt') ?? ''].some((word) => LOGO_NAMES.test(word)),
      )
  );
}
