import { logoStanding } from '../image/logo-on-ground.js';
import { pictureFiles, type PictureFile } from '../match/picture-files.js';
import { brandStandingOf } from '../palette/brand-standing.js';
import { isExcepted, isInExceptedPlace } from '../site/exceptions.js';
import { elementOf, inEachLighting, pageOf, partOf, type SiteModel } from '../site/site-model.js';
import { colorOfCss } from '../veneer/palette.js';
import type { Lighting } from '../veneer/lighting.js';
import type { Spot } from '../veneer/override.js';
import type { Proof, ProofCell, ProofFinding, ProofPlace } from './proof-finding.js';

/** Picture files as a site shows them now, in one lighting. */
export interface ShownFiles {
  readonly lighting: Lighting;
  readonly files: readonly PictureFile[];
}

/** What was read from the pixels of one file. */
export interface FileReading {
  readonly path: string;
  readonly inks: readonly { readonly hex: string; readonly share: number; readonly isGround: boolean }[];
  /** Of a logo, for each ground it stands on: share of its ink under 3 : 1, 0–1, and the worst ratio. */
  readonly figures: readonly { readonly ground: string; readonly lost: number; readonly worst: number }[];
  /** Why nothing was read; empty otherwise. */
  readonly problem: string;
}

/** Width at which the files are looked for, CSS px. */
const WIDTH = 1280;
/** Share of a file's inks from which one is told, 0–1: less are edges between two. */
const TOLD = 0.02;
/** Most inks of a file that are named. */
const MOST_NAMED = 6;

/** Picture files of a site on what they stand on now. A generator: it yields after each page. */
export function* filesShown(site: SiteModel): Generator<string, ShownFiles[]> {
  const shown: ShownFiles[] = [];
  for (const lit of inEachLighting(site)) {
    const files = yield* pictureFiles(lit, { kind: 'site' }, { strategy: 'blend', rows: [], unmet: [] }, WIDTH);
    shown.push({ lighting: lit.palette.lighting ?? 'light', files });
  }
  return shown;
}

/** A proof with what picture files come to: logos on their grounds, and inks that are none of the brand's, which no CSS reaches. */
export function withFilesRead(
  site: SiteModel,
  proof: Proof,
  shown: readonly ShownFiles[],
  readings: readonly FileReading[],
): Proof {
  const byPath = new Map(readings.map((reading) => [reading.path, reading]));
  const findings: ProofFinding[] = [];
  const looked: { readonly partId: number | null; readonly kind: 'seen' | 'ours' }[] = [];
  const unread = new Map<string, string>();
  for (const { lighting, files } of shown)
    for (const file of files) {
      const reading = byPath.get(file.path);
      if (!reading || reading.problem !== '') {
        unread.set(file.path, reading?.problem ?? 'beyond the bound');
        continue;
      }
      const at = (spots: readonly Spot[], property: string): ProofPlace[] =>
        spots.map((spot) => placeOf(site, spot, property, lighting, proof));
      if (file.isLogo) findings.push(...logoFindings(site, file, reading, at));
      looked.push(...at(file.spots, '').map(({ partId }) => ({ partId, kind: 'ours' as const })));
      if (file.isLogo) looked.push(...at(file.spots, '').map(({ partId }) => ({ partId, kind: 'seen' as const })));
      // Whatever the lighting, a file has the same inks.
      if (lighting === shown[0].lighting) findings.push(...inkFindings(site, file, reading, at));
    }
  const failing = findings.filter(({ level }) => level === 'fails');
  const others = findings.filter(({ level }) => level !== 'fails');
  const firstOther = proof.findings.findIndex(({ level }) => level !== 'fails');
  const split = firstOther === -1 ? proof.findings.length : firstOther;
  const all = [...proof.findings.slice(0, split), ...failing, ...proof.findings.slice(split), ...others];
  return {
    ...proof,
    findings: all,
    cells: recounted(proof.cells, findings, looked),
    looks: proof.looks + looked.length,
    unseen: [...proof.unseen, ...[...unread].map(([path, reason]) => ({ what: `inks of ${path}`, reason }))],
  };
}

type PlacesOf = (spots: readonly Spot[], property: string) => ProofPlace[];

function logoFindings(
  site: SiteModel,
  { path, grounds }: PictureFile,
  { figures }: FileReading,
  at: PlacesOf,
): ProofFinding[] {
  return grounds.flatMap(({ matched, spots: all }) => {
    const spots = all.filter(({ pageId, element }) => {
      const page = pageOf(site, pageId);
      return !isInExceptedPlace(site.exceptions, page.document, elementOf(page, element));
    });
    const figure = figures.find(({ ground }) => ground === matched);
    const standing = figure ? logoStanding(figure.lost) : 'holds';
    if (!figure || standing === 'holds' || spots.length === 0) return [];
    return [
      asFinding({
        id: `seen|logo|${path}|${matched}|${at(spots, '')[0].lighting}`,
        kind: 'seen',
        level: standing,
        title: `Logo ${nameOf(path)} on ${matched}`,
        basis: `${Math.round(figure.lost * 100)} % of its ink falls under 3 : 1 there, pixel by pixel; of a logo a tenth is to be looked at, a third fails (common practice). A ground of another lightness, or the logo’s other edition, mends it.`,
        figure: figure.worst,
        needed: 3,
        unit: 'ratio',
        places: at(spots, 'background-color'),
      }),
    ];
  });
}

function inkFindings(site: SiteModel, file: PictureFile, { inks }: FileReading, at: PlacesOf): ProofFinding[] {
  const { path, spots, spot } = file;
  if (site.palette.swatches.length === 0) return [];
  const page = pageOf(site, spot.pageId);
  const element = elementOf(page, spot.element);
  const told = inks.filter(({ share }) => share >= TOLD);
  const strays = told.flatMap(({ hex, share }) => {
    const color = colorOfCss(hex);
    const standing = color && brandStandingOf(color, site.palette);
    if (!color || standing?.kind === 'brand' || isExcepted(site.exceptions, page.document, element, color)) return [];
    return [{ hex, share, nearest: standing?.nearest ?? '', deltaE: standing?.deltaE ?? 0 }];
  });
  if (strays.length === 0) return [];
  const furthest = strays.reduce((far, own) => (own.deltaE > far.deltaE ? own : far));
  const words = strays
    .slice(0, MOST_NAMED)
    .map(
      ({ hex, share, nearest, deltaE }) =>
        `${hex} (${Math.round(share * 100)} %, ΔE ${deltaE.toFixed(1)} from ${nearest})`,
    );
  const more = strays.length - words.length;
  return [
    asFinding({
      id: `ours|inks|${path}`,
      kind: 'ours',
      level: 'look',
      title: `${strays.length} of ${told.length} inks of ${nameOf(path)}`,
      basis: `None of the brand’s: ${words.join(', ')}${more > 0 ? ` and ${more} more` : ''}. No CSS reaches them: the file is to be redrawn, or left alone.`,
      figure: furthest.deltaE,
      needed: null,
      unit: 'deltaE',
      places: at(spots, 'background-image'),
    }),
  ];
}

function asFinding(found: Omit<ProofFinding, 'states' | 'widths' | 'lightings' | 'mend'>): ProofFinding {
  const [{ setting, lighting }] = found.places;
  return { ...found, states: ['rest'], widths: [setting.width], lightings: [lighting], mend: null };
}

function placeOf(
  site: SiteModel,
  { pageId, element }: Spot,
  property: string,
  lighting: Lighting,
  { settings }: Proof,
): ProofPlace {
  const page = pageOf(site, pageId);
  const partId = partOf(site, page, elementOf(page, element))?.id ?? null;
  return { pageId, element, pseudo: '', property, index: 0, state: 'rest', setting: settings[0], lighting, partId };
}

function nameOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}

function recounted(
  cells: readonly ProofCell[],
  findings: readonly ProofFinding[],
  looked: readonly Pick<ProofCell, 'partId' | 'kind'>[],
): ProofCell[] {
  const next = cells.map((cell) => ({ ...cell }));
  const cellOf = ({
    partId,
    kind,
  }: Pick<ProofCell, 'partId' | 'kind'>): { looks: number; fails: number; toLookAt: number } => {
    let cell = next.find((own) => own.partId === partId && own.kind === kind);
    if (!cell) next.push((cell = { partId, kind, looks: 0, fails: 0, toLookAt: 0 }));
    return cell;
  };
  for (const look of looked) cellOf(look).looks += 1;
  for (const { kind, level, places } of findings)
    for (const partId of new Set(places.map((place) => place.partId))) {
      const cell = cellOf({ partId, kind });
      if (level === 'fails') cell.fails += 1;
      else cell.toLookAt += 1;
    }
  return next;
}
