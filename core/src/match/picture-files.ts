import { cssAddresses } from '../syntax/css-addresses.js';
import { decidingDeclaration } from '../census/paintings.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { sourceOf } from '../resolve/explain.js';
import { withVeneer } from '../resolve/page.js';
import { resolvePath } from '../rules/resolve-path.js';
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
  /** Places that show it, the first of them. */
  readonly spots: readonly Spot[];
  /** What it stands on, each pair once. */
  readonly grounds: readonly PictureGround[];
  /** Places whose ground cannot be told, since a picture or the like lies under them. */
  readonly untold: number;
}

/** A ground as it arrived and as matched, hex, and how many places stand on it. */
export interface PictureGround {
  readonly arrived: string;
  readonly matched: string;
  readonly places: number;
  readonly spots: readonly Spot[];
}

/** Most places that are told of a file, and of each of its grounds. */
const MOST_SPOTS = 100;

/** Names that makers of pages give a site's logo (common practice). */
const LOGO_NAMES = /logo|wordmark|brand/i;
/** Properties that show a picture file. */
const SHOWING = ['background-image', 'list-style-image', 'border-image-source'] as const;

/** A picture file as it is gathered. */
interface Gathered {
  readonly spot: Spot;
  isLogo: boolean;
  places: number;
  untold: number;
  readonly spots: Spot[];
  readonly grounds: Map<string, GatheredGround>;
}

interface GatheredGround extends PictureGround {
  places: number;
  readonly spots: Spot[];
}

/**
 * Picture files of a scope at rest, those of logos first, then by how many places show them; outside the scope grounds are as the
 * veneer has them by now. A generator: it yields after each page.
 */
export function* pictureFiles(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  width: number,
): Generator<string, PictureFile[]> {
  const files = new Map<string, Gathered>();
  for (const pageId of pagesOf(site, scope)) {
    gatherOn(site, scope, proposal, pageId, width, files);
    yield pageOf(site, pageId).path;
  }
  return [...files]
    .map(([path, { grounds, ...file }]) => ({ path, ...file, grounds: [...grounds.values()] }))
    .sort((a, b) => Number(b.isLogo) - Number(a.isLogo) || b.places - a.places || (a.path < b.path ? -1 : 1));
}

function gatherOn(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  pageId: number,
  width: number,
  files: Map<string, Gathered>,
): void {
  const dressed = pageOf(site, pageId);
  const page = withVeneer(dressed, '');
  const [view, now] = [page, dressed].map((own) => new StyleView(own, { environment: { width } }));
  const painted = paintedAsMatched(proposal, pageId);
  const isIn = inScope(site, scope, pageId);
  for (const element of page.document.elements) {
    if (!isIn(element)) continue;
    for (const { address, from, isOwn } of picturesOf(view, element, site.source.stylesheets)) {
      const path = resolvePath(from ?? page.path, address);
      if (!path) continue;
      const spot = { pageId, element: element.number };
      const file: Gathered = files.get(path) ?? {
        spot,
        isLogo: false,
        places: 0,
        untold: 0,
        spots: [],
        grounds: new Map(),
      };
      files.set(path, file);
      file.isLogo ||= isLogo(element, path);
      file.places += 1;
      if (file.spots.length < MOST_SPOTS) file.spots.push(spot);
      const under = isOwn ? element.flatParent : element;
      const around = under && surroundingsOf(view, under);
      if (!under || !around || (isOwn && around.doubts.length > 0)) {
        file.untold += 1;
        continue;
      }
      const instead = fillOver(under, (node, property) => painted(pageId, node.number, property), view);
      const [arrived, matched] = [around.ground, instead ?? surroundingsOf(now, under).ground].map(hexOf);
      const key = `${arrived} ${matched}`;
      const ground: GatheredGround = file.grounds.get(key) ?? { arrived, matched, places: 0, spots: [] };
      ground.places += 1;
      if (ground.spots.length < MOST_SPOTS) ground.spots.push(spot);
      file.grounds.set(key, ground);
    }
  }
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
    for (const { address } of cssAddresses(value)) found.push({ address, from, isOwn: false });
  }
  return found;
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
