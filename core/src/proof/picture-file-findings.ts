import { message, type Message } from '../message/message.js';
import { logoStanding } from '../image/logo-on-ground.js';
import { pictureFiles, type PictureFile } from '../match/picture-files.js';
import { brandStandingOf } from '../palette/brand-standing.js';
import { isExcepted, isInExceptedPlace } from '../site/exceptions.js';
import { elementOf, inEachLighting, pageOf, partOf, type SiteModel } from '../site/site-model.js';
import { colorOfCss } from '../veneer/palette.js';
import type { Lighting } from '../veneer/lighting.js';
import type { Spot } from '../veneer/override.js';
import type { Setting } from '../conditions/environment.js';
import { cellsWith, type CountedLooks } from './cells.js';
import { inOrder } from './gather-findings.js';
import type { Proof, ProofFinding, ProofPlace } from './proof-finding.js';

/** Picture files as a site shows them now, in one lighting at one width. */
export interface ShownFiles {
  readonly lighting: Lighting;
  readonly setting: Setting;
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

/** Share of a file's inks from which one is told, 0–1: less are edges between two. */
const TOLD = 0.02;
/** Most inks of a file that are named. */
const MOST_NAMED = 6;

/**
 * Picture files of a site on what they stand on now, at rest, in each lighting and at each width that a proof looked at.
 * A generator: it yields after each page.
 */
export function* filesShown(site: SiteModel, settings: readonly Setting[]): Generator<string, ShownFiles[]> {
  const shown: ShownFiles[] = [];
  for (const lit of inEachLighting(site))
    // Other preferences than the width are not told to what reads a picture's surroundings.
    for (const setting of settings.filter((own) => Object.keys(own).length === 1)) {
      const nothing = { strategy: 'blend', rows: [], unmet: [] } as const;
      const files = yield* pictureFiles(lit, { kind: 'site' }, nothing, setting.width);
      shown.push({ lighting: lit.palette.lighting ?? 'light', setting, files });
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
  const logos = new Map<string, ProofFinding>();
  const inks = new Map<string, ProofFinding | null>();
  const looked: CountedLooks[] = [];
  const unread = new Map<string, Message>();
  for (const { lighting, setting, files } of shown)
    for (const file of files) {
      const reading = byPath.get(file.path);
      if (!reading || reading.problem !== '') {
        unread.set(file.path, reading ? message('plain', { text: reading.problem }) : message('proof.beyond-bound'));
        continue;
      }
      const at: PlacesOf = (spots, property) =>
        spots.map((spot) => placeOf(site, spot, { property, lighting, setting }));
      if (file.isLogo) {
        for (const found of logoFindings(site, file, reading, at))
          logos.set(found.id, joined(logos.get(found.id), found));
        looked.push(...at(file.spots, '').map(({ partId }) => ({ partId, kind: 'seen', count: 1 }) as const));
      }
      // Whatever the lighting and the width, a file has the same inks.
      if (inks.has(file.path)) continue;
      inks.set(file.path, inkFinding(site, file, reading, at));
      looked.push(...at(file.spots, '').map(({ partId }) => ({ partId, kind: 'ours', count: 1 }) as const));
    }
  const findings = inOrder([
    ...proof.findings,
    ...logos.values(),
    ...[...inks.values()].flatMap((found) => found ?? []),
  ]);
  return {
    ...proof,
    findings,
    cells: cellsWith(proof.cells, looked, findings),
    looks: proof.looks + looked.length,
    unseen: [
      ...proof.unseen,
      ...[...unread].map(([path, reason]) => ({ what: message('proof.inks', { path }), reason })),
    ],
  };
}

/** The same logo on the same ground at one more width: each place once, where it was found first. */
function joined(before: ProofFinding | undefined, found: ProofFinding): ProofFinding {
  if (!before) return found;
  const known = new Set(before.places.map(({ pageId, element }) => `${pageId}:${element}`));
  const more = found.places.filter(({ pageId, element }) => !known.has(`${pageId}:${element}`));
  return { ...before, places: [...before.places, ...more], widths: [...before.widths, ...found.widths] };
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
        title: message('proof.logo', { name: nameOf(path), matched }),
        basis: message('proof.its-ink-falls-under', { lost: Math.round(figure.lost * 100) }),
        figure: figure.worst,
        needed: 3,
        unit: 'ratio',
        places: at(spots, 'background-color'),
      }),
    ];
  });
}

function inkFinding(site: SiteModel, file: PictureFile, { inks }: FileReading, at: PlacesOf): ProofFinding | null {
  const { path, spots, spot } = file;
  if (site.palette.swatches.length === 0) return null;
  const page = pageOf(site, spot.pageId);
  const element = elementOf(page, spot.element);
  const told = inks.filter(({ share }) => share >= TOLD);
  const strays = told.flatMap(({ hex, share }) => {
    const color = colorOfCss(hex);
    const standing = color && brandStandingOf(color, site.palette);
    if (!color || standing?.kind === 'brand' || isExcepted(site.exceptions, page.document, element, color)) return [];
    return [{ hex, share, nearest: standing?.nearest ?? '', deltaE: standing?.deltaE ?? 0 }];
  });
  if (strays.length === 0) return null;
  const furthest = strays.reduce((far, own) => (own.deltaE > far.deltaE ? own : far));
  const words = strays
    .slice(0, MOST_NAMED)
    .map(({ hex, share, nearest, deltaE }) =>
      message('proof.stray', { hex, share: Math.round(share * 100), deltaE: deltaE.toFixed(1), nearest }),
    );
  const more = strays.length - words.length;
  return asFinding({
    id: `ours|inks|${path}`,
    kind: 'ours',
    level: 'look',
    title: message('proof.strays', { strays: strays.length, told: told.length, name: nameOf(path) }),
    basis: message('proof.none-brand-more-no', { words, more }),
    figure: furthest.deltaE,
    needed: null,
    unit: 'deltaE',
    places: at(spots, 'background-image'),
  });
}

function asFinding(found: Omit<ProofFinding, 'states' | 'widths' | 'lightings' | 'mend'>): ProofFinding {
  const [{ setting, lighting }] = found.places;
  return { ...found, states: ['rest'], widths: [setting.width], lightings: [lighting], mend: null };
}

function placeOf(
  site: SiteModel,
  { pageId, element }: Spot,
  at: Pick<ProofPlace, 'property' | 'lighting' | 'setting'>,
): ProofPlace {
  const page = pageOf(site, pageId);
  const partId = partOf(site, page, elementOf(page, element))?.id ?? null;
  return { pageId, element, pseudo: '', index: 0, state: 'rest', partId, ...at };
}

function nameOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}
