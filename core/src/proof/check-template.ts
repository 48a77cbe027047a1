import { message, type Message } from '../message/message.js';
import { proofSettings } from '../match/proof-settings.js';
import { pictureFiles } from '../match/picture-files.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { nameTold } from '../selectors/describe-element.js';
import { dressSite, openSite, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { unreadPages } from '../site/unread.js';
import { toEnd } from '../to-end.js';
import type { Spot } from '../veneer/override.js';
import type { ProofFinding, ProofKind } from './proof-finding.js';
import { proveSite } from './prove-site.js';

/** What does not hold in a template that held in the one it is held against. */
export interface TemplateFault {
  readonly kind: ProofKind | 'picture' | 'align';
  readonly words: Message;
  /** The first place that shows it. */
  readonly spot: Spot;
  readonly places: number;
}

/** A part's match in another template. */
export interface TemplateCheck {
  /** Name of the template; empty for the part as it was captured. */
  readonly template: string;
  readonly faults: readonly TemplateFault[];
  /** Things held against what is asked. */
  readonly looks: number;
  readonly pages: number;
  /** What was not looked at, in words. */
  readonly unseen: readonly Message[];
}

/** What a part comes to in one template. */
interface Looked {
  readonly findings: readonly ProofFinding[];
  readonly looks: number;
  /** Grounds of picture files, by path. */
  readonly grounds: ReadonlyMap<string, ReadonlyMap<string, Spot>>;
  readonly unseen: readonly Message[];
  /** Alignment of texts, by page, element and width. */
  readonly alignments: ReadonlyMap<string, { readonly align: string; readonly name: Message; readonly spot: Spot }>;
}

/**
 * Looks at a part in another of its templates with the match it has, and tells what no longer holds there: what cannot be read or
 * seen, colours that nothing matched, overrides that lost, pictures on another ground, texts aligned otherwise. What did not hold in
 * the template it is in now is not told once more.
 * A generator: it yields how far it is.
 */
export function* checkTemplate(
  site: SiteModel,
  partId: number,
  template: string,
): Generator<{ readonly done: number; readonly of: number }, TemplateCheck> {
  // Both are read anew: what a frame measured of the one shown is not known of the other.
  const shown = inTemplate(site, partId, site.source.parts.find(({ id }) => id === partId)?.template ?? '');
  const other = inTemplate(site, partId, template);
  const selectors = site.parts.find(({ part }) => part.id === partId)?.selectors ?? [];
  const pageIds = [...site.closed].flatMap(([id, page]) => (matchingElements(page, selectors).length > 0 ? [id] : []));
  const inside = insideOf(site, selectors, pageIds);
  const looked: Looked[] = [];
  for (const [i, own] of [shown, other].entries()) {
    const steps = lookAt(own, partId, pageIds, inside);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { done: i * step.value.of + step.value.done, of: 2 * step.value.of };
    looked.push(step.value);
  }
  const [now, then] = looked;
  return {
    template,
    faults: [...newFindings(now, then), ...newGrounds(now, then), ...newAlignments(now, then)],
    looks: then.looks,
    pages: pageIds.length,
    unseen: then.unseen,
  };
}

/** The site with one part in another template, dressed as it is. */
function inTemplate(site: SiteModel, partId: number, template: string): SiteModel {
  const parts = site.source.parts.map((part) => (part.id === partId ? { ...part, template } : part));
  return dressSite(openSite({ ...site.source, parts }), site.overrides, site.palette, {
    ownCss: site.ownCss,
    exceptions: site.exceptions,
  });
}

function* lookAt(
  site: SiteModel,
  partId: number,
  pageIds: readonly number[],
  inside: ReadonlySet<string>,
): Generator<{ readonly done: number; readonly of: number }, Looked> {
  const proof = yield* proveSite(site, { pageIds });
  const findings = proof.findings.flatMap((finding) => {
    const places = finding.places.filter(({ pageId, element }) => inside.has(`${pageId}/${element}`));
    return places.length > 0 && (finding.level === 'fails' || finding.kind === 'ours' || finding.kind === 'holds')
      ? [{ ...finding, places }]
      : [];
  });
  const looks = proof.cells.filter((cell) => cell.partId === partId).reduce((sum, cell) => sum + cell.looks, 0);
  const nothing = { strategy: 'blend', rows: [], unmet: [] } as const;
  const widths = [...new Set(proof.settings.map(({ width }) => width))];
  const grounds = new Map<string, Map<string, Spot>>();
  for (const width of widths)
    for (const file of toEnd(pictureFiles(site, { kind: 'parts', partIds: [partId] }, nothing, width))) {
      const known = grounds.get(file.path) ?? new Map<string, Spot>();
      grounds.set(file.path, known);
      for (const { matched, spots } of file.grounds) known.set(matched, spots[0]);
    }
  const unseen = [
    ...proofSettings(site).unseen,
    ...unreadPages(site).map(({ name }) => message('proof.all-past-bound', { name })),
  ];
  return { findings, looks, grounds, alignments: alignmentsOf(site, partId, pageIds, widths), unseen };
}

/** Elements of a part and of the parts within it, by page and number, which no template changes. */
function insideOf(
  site: SiteModel,
  selectors: SiteModel['parts'][number]['selectors'],
  pageIds: readonly number[],
): ReadonlySet<string> {
  const inside = new Set<string>();
  for (const pageId of pageIds) {
    const open = [...matchingElements(pageOf(site, pageId), selectors)];
    for (let element = open.pop(); element; element = open.pop()) {
      inside.add(`${pageId}/${element.number}`);
      open.push(...element.children);
    }
  }
  return inside;
}

function alignmentsOf(
  site: SiteModel,
  partId: number,
  pageIds: readonly number[],
  widths: readonly number[],
): Looked['alignments'] {
  const selectors = site.parts.find(({ part }) => part.id === partId)?.selectors ?? [];
  const found = new Map<string, { align: string; name: Message; spot: Spot }>();
  for (const pageId of pageIds) {
    const page = pageOf(site, pageId);
    for (const [root, width] of matchingElements(page, selectors).flatMap((own) =>
      widths.map((one) => [own, one] as const),
    )) {
      const view = viewIn(page, root, 'rest', width);
      const open = [root];
      for (let element = open.pop(); element; element = open.pop()) {
        open.push(...element.children);
        if (element.children.length > 0) continue;
        const style = view.style(element);
        if (style.resolved('display') === 'none') continue;
        found.set(`${pageId}/${element.number}/${width}`, {
          align: style.resolved('text-align'),
          name: nameTold(element, ''),
          spot: { pageId, element: element.number },
        });
      }
    }
  }
  return found;
}

/** Findings that were not there, or show in more places. */
function newFindings(now: Looked, then: Looked): TemplateFault[] {
  const known = new Map<string, Set<string>>();
  const keyOf = ({ kind, title }: ProofFinding): string => `${kind} ${JSON.stringify(title)}`;
  const placeOf = ({ pageId, element, pseudo, state }: ProofFinding['places'][number]): string =>
    `${pageId} ${element} ${pseudo} ${state}`;
  for (const finding of now.findings)
    known.set(keyOf(finding), new Set([...(known.get(keyOf(finding)) ?? []), ...finding.places.map(placeOf)]));
  return then.findings.flatMap((finding): TemplateFault[] => {
    const before = known.get(keyOf(finding));
    const places = finding.places.filter((place) => !before?.has(placeOf(place)));
    if (places.length === 0) return [];
    const { pageId, element } = places[0];
    return [{ kind: finding.kind, words: wordsOf(finding), spot: { pageId, element }, places: places.length }];
  });
}

function wordsOf({ title, figure, needed }: ProofFinding): Message {
  return figure === null || needed === null
    ? title
    : message('proof.where-asked', { title, figure: (Math.floor(figure * 10) / 10).toFixed(1), needed });
}

function newGrounds(now: Looked, then: Looked): TemplateFault[] {
  return [...then.grounds].flatMap(([path, grounds]) => {
    const before = now.grounds.get(path);
    if (!before || before.size === 0) return [];
    const name = path.slice(path.lastIndexOf('/') + 1);
    return [...grounds]
      .filter(([hex]) => !before.has(hex))
      .map(([hex, spot]): TemplateFault => ({
        kind: 'picture',
        words: message('proof.stands-before-look-whether', { name, hex, before: [...before.keys()] }),
        spot,
        places: 1,
      }));
  });
}

function newAlignments(now: Looked, then: Looked): TemplateFault[] {
  const turned = new Map<string, { places: Set<string>; name: Message; spot: Spot }>();
  for (const [key, { align, name, spot }] of then.alignments) {
    const before = now.alignments.get(key)?.align;
    if (before === undefined || before === align) continue;
    const turn = `${before} → ${align}`;
    const known = turned.get(turn);
    const place = `${spot.pageId}/${spot.element}`;
    if (known) known.places.add(place);
    else turned.set(turn, { places: new Set([place]), name, spot });
  }
  return [...turned].map(([turn, { places, name, spot }]) => ({
    kind: 'align',
    words: message('proof.text-align-first-what', { turn, name }),
    spot,
    places: places.size,
  }));
}
