import { say, spoken } from '@upper-veneer/words';
import { elementOf, pageOf, pathSelector, type ProofFinding, type ProofPlace } from '@upper-veneer/core';
import type { Checked } from './check-site.js';

/** Version of the JSON below; it changes when a field changes its meaning. */
const VERSION = 1;

/** Places that are listed of one finding in words. */
const MOST_LISTED = 3;

/**
 * The findings as JSON: `{ version, looks, findings: [{ kind, level, page, selector, element, pseudo, state, width, lighting, figure,
 * needed, places, words, mend }], unseen }`, one entry a cause; what it says of one place is its worst. `element` is the index in document
 * order.
 */
export function findingsAsJson(checked: Checked): string {
  const { proof, mends } = checked;
  return `${JSON.stringify(
    spoken({
      version: VERSION,
      looks: proof.looks,
      findings: proof.findings.map((finding) => {
        const tried = mends.get(finding.id);
        return {
          kind: finding.kind,
          level: finding.level,
          ...placeAsJson(checked, finding.places[0]),
          figure: rounded(finding.figure),
          needed: finding.needed,
          places: finding.places.map((place) => placeAsJson(checked, place)),
          words: wordsOf(finding),
          mend: tried?.ok ? tried.mend.label : null,
        };
      }),
      unseen: proof.unseen,
    }),
    null,
    2,
  )}\n`;
}

/** Where a place is, for a machine. */
export function placeAsJson(
  { site }: Checked,
  { pageId, element, pseudo, state, setting, lighting }: ProofPlace,
): Readonly<Record<'page' | 'selector' | 'pseudo' | 'state' | 'lighting', string>> & {
  readonly element: number;
  readonly width: number;
} {
  const page = pageOf(site, pageId);
  return {
    page: page.path,
    selector: pathSelector(elementOf(page, element)),
    element,
    pseudo,
    state,
    width: setting.width,
    lighting,
  };
}

/** A finding in a sentence. */
export function wordsOf({ title, basis }: ProofFinding): string {
  return `${say(title)}. ${say(basis)}`;
}

/** The findings for people, grave ones first. */
export function findingsAsText(checked: Checked): string {
  const { proof, mends } = checked;
  const count = (level: ProofFinding['level']): number => proof.findings.filter((own) => own.level === level).length;
  const widths = [...new Set(proof.settings.map(({ width }) => width))];
  const extent = [
    `${proof.pages} ${proof.pages === 1 ? 'page' : 'pages'}`,
    `${proof.states.length} states`,
    `${widths.join(', ')} px`,
    proof.lightings.join(' and '),
    `${proof.looks} looks`,
  ];
  const lines = [`${count('fails')} fail, ${count('look')} to look at; ${extent.join(', ')}`];
  for (const finding of proof.findings) {
    const tried = mends.get(finding.id);
    lines.push(
      '',
      `${finding.level === 'fails' ? 'fails' : 'look '} ${finding.kind}: ${say(finding.title)}${figureOf(finding)}`,
      `      ${say(finding.basis)}`,
      ...finding.places.slice(0, MOST_LISTED).map((place) => {
        const { page, selector, pseudo, state, width } = placeAsJson(checked, place);
        return `      ${page} ${selector}${pseudo === '' ? '' : `::${pseudo}`}, ${state}, ${width} px`;
      }),
      ...(finding.places.length > MOST_LISTED ? [`      and ${finding.places.length - MOST_LISTED} more`] : []),
      ...(tried ? [`      ${tried.ok ? `mend: ${say(tried.mend.label)}` : `no mend: ${say(tried.reason)}`}`] : []),
    );
  }
  if (proof.unseen.length > 0)
    lines.push('', 'not looked at:', ...proof.unseen.map(({ what, reason }) => `      ${say(what)}: ${say(reason)}`));
  return `${lines.join('\n')}\n`;
}

function figureOf({ figure, needed, unit }: ProofFinding): string {
  if (figure === null) return '';
  const needs = needed === null ? '' : `, ${needed} asked`;
  return unit === 'ratio' ? ` (${rounded(figure)} : 1${needs})` : ` (ΔE ${rounded(figure)}${needs})`;
}

function rounded(figure: number | null): number | null {
  return figure === null ? null : Math.floor(figure * 100) / 100;
}
