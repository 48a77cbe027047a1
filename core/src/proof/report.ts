import { inner, message, type Say } from '../message/message.js';
import { escapeHtml as text } from '../text/escape-html.js';
import { hexOf } from '../color/read-notation.js';
import { stateTold, propertyTold } from '../grid/rows.js';
import { proofStateTold } from './proof-state.js';
import { nameTold } from '../selectors/describe-element.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { roleTold, rolesInOrder } from '../veneer/own-role.js';
import { colorOfValue, plainValuesIn } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import { thingsOf } from './gather-findings.js';
import { PROOF_KINDS, type Proof, type ProofFinding, type ProofKind, type ProofPlace } from './proof-finding.js';

/** What is said of a site beside what was found. */
export interface ReportFacts {
  readonly site: string;
  /** When it was looked at, in words. */
  readonly at: string;
  /** What is left alone, with the reasons. */
  readonly exceptions: readonly { readonly target: string; readonly reason: string }[];
  /** Revision the draft equals; `null` where it differs from all. */
  readonly revision: number | null;
  /** Parts as they arrived and as they are now. */
  readonly pictures?: readonly PartPicture[];
  /** Parts that are in none of them. */
  readonly unpictured?: readonly string[];
}

/** A part drawn without and with the veneer, as `data:` addresses of PNG pictures. */
export interface PartPicture {
  readonly name: string;
  readonly page: string;
  readonly before: string;
  readonly after: string;
}

/** What each group asks, for those who did not make the site. */
function asks(kind: ProofKind, say: Say): { readonly name: string; readonly of: string } {
  return { name: say(message(`report.group.${kind}`)), of: say(message(`report.asks.${kind}`)) };
}

/** How a file for a client looks, on the screen and printed. */
export const REPORT_STYLE = `
  body { max-width: 60em; margin: 2em auto; padding: 0 1.5em; background: #fff; color: #1a1a1a; }
  body { font: 15px/1.45 system-ui, sans-serif; }
  h1 { margin: 0; font-size: 1.7em; }
  h2 { margin: 2em 0 .5em; font-size: 1.2em; break-after: avoid; }
  h3 { margin: 1.2em 0 .2em; font-size: 1em; break-after: avoid; }
  p { margin: .3em 0; }
  .soft { color: #565656; }
  table { width: 100%; border-collapse: collapse; }
  th, td { padding: .3em .6em; border: 1px solid #c8c8c8; text-align: left; vertical-align: top; }
  th { background: #f0f0f0; }
  tr, li, h3 + p { break-inside: avoid; }
  .chip { display: inline-block; width: 1em; height: 1em; margin-right: .4em; border: 1px solid #8a8a8a; }
  .chip { vertical-align: -.12em; print-color-adjust: exact; forced-color-adjust: none; }
  .role { display: block; }
  figure { display: grid; grid-template-columns: 1fr 1fr; gap: .6em 1em; margin: 1em 0; break-inside: avoid; }
  figcaption { grid-column: 1 / -1; font-weight: 600; }
  figure img { max-width: 100%; border: 1px solid #c8c8c8; print-color-adjust: exact; }
  figure span { display: block; color: #565656; font-size: .86em; }
  ul { margin: .3em 0; padding-left: 1.2em; }
  @page { margin: 16mm; }
  @media print { body { margin: 0; padding: 0; max-width: none; font-size: 10pt; } }
`;

/** The proof for a client: one HTML file that needs no other, runs no script and prints. */
export function reportHtml(site: SiteModel, proof: Proof, facts: ReportFacts, say: Say): string {
  const [fails, look] = [of(proof, 'fails'), of(proof, 'look')];
  const title = say(message('document.colours-checked', { site: text(facts.site) }));
  return [
    '<!doctype html>',
    '<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">',
    `<title>${title}</title><style>${REPORT_STYLE}</style></head><body>`,
    `<header><h1>${title}</h1>`,
    `<p class="soft">${text(atOf(facts, say))}</p>`,
    `<p><strong>${standing(fails.length, look.length, say)}.</strong> ${extent(proof, say)}.</p></header>`,
    '<main>',
    `<h2>${text(say(message('report.checked')))}</h2>${groupTable(proof, say)}`,
    `<h2>${text(say(message('report.roles')))}</h2>${roleTable(site, say)}`,
    pictureSection(facts, say),
    findingSection(say(message('document.what-fails')), site, fails, say),
    findingSection(say(message('document.what-be-looked-eye')), site, look, say),
    `<h2>${text(say(message('document.what-was-left-alone')))}</h2>${listOf(
      facts.exceptions.map(({ target, reason }) => [target, reason]),
      say,
    )}`,
    `<h2>${text(say(message('report.not-looked-at')))}</h2>${listOf(
      proof.unseen.map(({ what, reason }) => [say(what), say(reason)]),
      say,
    )}`,
    '</main></body></html>',
    '',
  ].join('\n');
}

function standing(fails: number, look: number, say: Say): string {
  return say(message('report.standing', { fails, look }));
}

/** How much was looked at: `7 pages, each in 8 states (rest…), 3 widths (1280…): 8,315 looks`. */
function extent({ pages, hasSpecimen, states, settings, lightings, looks }: Proof, say: Say): string {
  const widths = [...new Set(settings.map(({ width }) => width))];
  return say(
    message('report.extent', {
      pages,
      specimen: hasSpecimen ? 'with' : 'without',
      states: states.length,
      named: states.map((state) => inner(proofStateTold(state))),
      widths: widths.length,
      px: widths.map(String),
      lightings: lightings.length,
      looks,
    }),
  );
}

/** When, and of which revision. */
function atOf({ at, revision }: ReportFacts, say: Say): string {
  return say(message('report.at', { at, draft: revision === null ? 'draft' : 'revision', revision: revision ?? 0 }));
}

/** The places of all findings, one a line. Source: RFC 4180. */
export function reportCsv(site: SiteModel, proof: Proof, say: Say): string {
  const rows = proof.findings.flatMap((finding) =>
    finding.places.map((place) => [
      finding.kind,
      finding.level,
      say(finding.title),
      pageName(site, place),
      partName(site, place.partId, say),
      say(nameTold(elementOf(pageOf(site, place.pageId), place.element), place.pseudo)),
      place.state,
      String(place.setting.width),
      place.lighting,
      finding.figure === null ? '' : finding.figure.toFixed(2),
      finding.needed === null ? '' : String(finding.needed),
      say(finding.basis),
    ]),
  );
  const head = [
    'group',
    'level',
    'finding',
    'page',
    'part',
    'element',
    'state',
    'width',
    'lighting',
    'figure',
    'asked',
    'basis',
  ];
  return [head, ...rows].map((row) => `${row.map(cell).join(',')}\r\n`).join('');
}

function groupTable(proof: Proof, say: Say): string {
  return table(
    [
      say(message('report.asked')),
      say(message('report.of-what')),
      say(message('report.looks')),
      say(message('report.stands')),
    ],
    PROOF_KINDS.map((kind) => {
      const looks = proof.cells.reduce((sum, cell) => sum + (cell.kind === kind ? cell.looks : 0), 0);
      const [fails, look] = (['fails', 'look'] as const).map((level) => of(proof, level, kind).length);
      const { name, of: what } = asks(kind, say);
      const held = say(message('report.held', { looks, fails, look }));
      return [name, what, say(message('report.figure', { figure: looks })), held];
    }),
  );
}

/** A table whose first column heads its rows. @param rows cells as HTML. */
function table(head: readonly string[], rows: readonly (readonly string[])[]): string {
  const body = rows.map(
    ([first, ...cells]) => `<tr><th scope="row">${first}</th>${cells.map((own) => `<td>${own}</td>`).join('')}</tr>`,
  );
  const heads = head.map((words) => `<th>${words}</th>`).join('');
  return `<table><thead><tr>${heads}</tr></thead><tbody>${body.join('')}</tbody></table>`;
}

/** What each role paints in each part, as the overrides say. */
function roleTable(site: SiteModel, say: Say): string {
  const parts = [
    ...site.source.parts.map(({ id, name }) => ({ id, name })),
    { id: null, name: say(message('document.everywhere-else')) },
  ];
  const rows = parts.flatMap(({ id, name }) => {
    const carried = carriedIn(site, id, say);
    return carried.length === 0 ? [] : [[text(name), carried.join('')]];
  });
  return rows.length === 0
    ? `<p>${text(say(message('report.no-role')))}</p>`
    : table([say(message('note.part')), say(message('report.carries'))], rows);
}

function carriedIn(site: SiteModel, partId: number | null, say: Say): string[] {
  const known = new Set(site.source.parts.map(({ id }) => id));
  const uses = new Map<string, Set<string>>();
  for (const { partId: own, property, state, value } of site.overrides) {
    if ((own !== null && known.has(own) ? own : null) !== partId) continue;
    for (const plain of plainValuesIn(value)) {
      if (plain.kind !== 'role') continue;
      const what = uses.get(plain.role) ?? new Set<string>();
      what.add(`${say(propertyTold(property))}${state === 'rest' ? '' : ` ${say(inner(stateTold(state)))}`}`);
      uses.set(plain.role, what);
    }
  }
  return rolesInOrder(site.palette).flatMap((role) => {
    const what = uses.get(role);
    if (!what) return [];
    const hex = hexOfRole(site.palette, role);
    const chip = `<span class="chip" style="background:${hex}"></span>`;
    const named = text(`${say(roleTold(role))} (${swatchOf(site.palette, role)}, ${hex}): ${[...what].join(', ')}`);
    return [`<span class="role">${chip}${named}</span>`];
  });
}

/** Only what was drawn goes in: an address of any other kind is left out. Source: RFC 2397. */
const DRAWN = /^data:image\/png;base64,[A-Za-z0-9+/]+={0,2}$/;

/** Parts before and after; nothing where none was drawn. */
export function pictureSection(
  { pictures = [], unpictured = [] }: Pick<ReportFacts, 'pictures' | 'unpictured'>,
  say: Say,
): string {
  const figures = pictures
    .filter(({ before, after }) => DRAWN.test(before) && DRAWN.test(after))
    .map(({ name, page, before, after }) => {
      const picture = (when: string, address: string): string =>
        `<span>${when}<img alt="${text(`${name}, ${when.toLowerCase()}`)}" src="${address}"></span>`;
      const caption = `<figcaption>${text(say(message('report.picture', { name, page })))}</figcaption>`;
      const pair = [picture(say(message('document.as-arrived')), before), picture(say(message('report.now')), after)];
      return `<figure>${caption}${pair.join('')}</figure>`;
    });
  const left =
    unpictured.length === 0
      ? ''
      : `<p class="soft">${text(say(message('report.not-pictured', { parts: unpictured })))}</p>`;
  return figures.length === 0 ? '' : `<h2>${text(say(message('report.before-after')))}</h2>${figures.join('')}${left}`;
}

function hexOfRole(palette: Palette, role: ReturnType<typeof rolesInOrder>[number]): string {
  const color = colorOfValue({ kind: 'role', role, shade: 0 }, palette);
  return color ? hexOf(color) : '#ffffff';
}

function swatchOf({ swatches, roles }: Palette, role: ReturnType<typeof rolesInOrder>[number]): string {
  const fill = roles.find((own) => own.role === role);
  return swatches.find(({ id }) => id === fill?.swatchId)?.name ?? '';
}

/** Places of a finding that are named. */
const MOST_NAMED = 6;

function findingSection(heading: string, site: SiteModel, findings: readonly ProofFinding[], say: Say): string {
  if (findings.length === 0) return `<h2>${heading}</h2><p>${text(say(message('report.nothing')))}</p>`;
  const items = findings.map((finding) => {
    const { title, kind, basis, places, widths } = finding;
    const pages = [...new Set(places.map((place) => pageName(site, place)))];
    const where = say(message('report.where', { things: thingsOf(finding), pages, px: widths.map(String) }));
    const words = `${asks(kind, say).name}.${measure(finding, say)} ${where}: ${namedPlaces(site, places, say)}.`;
    return `<h3>${text(say(title))}</h3><p>${text(words)}</p><p class="soft">${text(say(basis))}</p>`;
  });
  return `<h2>${heading}</h2>${items.join('')}`;
}

function namedPlaces(site: SiteModel, places: readonly ProofPlace[], say: Say): string {
  const named = [
    ...new Set(
      places.map(({ partId, state }) => `${partName(site, partId, say)}, ${say(inner(proofStateTold(state)))}`),
    ),
  ];
  const more = named.length - MOST_NAMED;
  return named.slice(0, MOST_NAMED).join('; ') + (more > 0 ? say(message('report.more', { more })) : '');
}

function measure({ figure, needed, unit }: ProofFinding, say: Say): string {
  if (figure === null) return '';
  if (unit !== 'ratio') return ` ΔE ${figure.toFixed(1)}.`;
  return ` ${figure.toFixed(2)} : 1${needed === null ? '' : say(message('report.ratio-asked', { needed }))}.`;
}

function of({ findings }: Proof, level: ProofFinding['level'], kind?: ProofKind): readonly ProofFinding[] {
  return findings.filter((finding) => finding.level === level && (kind === undefined || finding.kind === kind));
}

function pageName(site: SiteModel, { pageId }: ProofPlace): string {
  return site.source.pages.find(({ id }) => id === pageId)?.name ?? '';
}

function partName(site: SiteModel, partId: number | null, say: Say): string {
  return site.source.parts.find(({ id }) => id === partId)?.name ?? say(message('document.no-part'));
}

function listOf(items: readonly (readonly [what: string, why: string])[], say: Say): string {
  if (items.length === 0) return `<p>${text(say(message('report.nothing')))}</p>`;
  return `<ul>${items.map(([what, why]) => `<li><strong>${text(what)}</strong>: ${text(why)}</li>`).join('')}</ul>`;
}

/** A cell that a spreadsheet takes for text: quoted, and never begun as a formula. */
function cell(words: string): string {
  const safe = /^[=+\-@\t\r]/.test(words) ? `'${words}` : words;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
