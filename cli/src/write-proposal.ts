import { say, spoken } from '@upper-veneer/words';
import { describeHome, pageOf, valueTold, type Becomes, type Palette, type ProposedRow } from '@upper-veneer/core';
import type { Matched } from './match-site.js';

/** Version of the JSON below; it changes when a field changes its meaning. */
const VERSION = 1;

/**
 * The rows as JSON: `{ version, rows: [{ color, uses, area, home, places: [{ page, element, pseudo, state, property }],
 * becomes: { role | swatch | leave, shade, css }, reason }], unmet }`. `element` is the index in document order; `area` is px² and 0
 * here, where nothing is laid out.
 */
export function proposalAsJson({ site, proposal }: Matched): string {
  const pathOf = (pageId: number): string => site.source.pages.find(({ id }) => id === pageId)?.path ?? '';
  return `${JSON.stringify(
    spoken({
      version: VERSION,
      strategy: proposal.strategy,
      rows: proposal.rows.map(({ found, becomes, css, reason, worst }) => ({
        color: found.hex,
        uses: [found.job],
        area: Math.round(found.area),
        home: found.homes.map(describeHome),
        places: found.places
          .filter(({ isEcho }) => !isEcho)
          .map(({ pageId, element, pseudo, state, property }) => ({
            page: pathOf(pageId),
            element,
            pseudo,
            state,
            property,
          })),
        becomes: { ...becomesAsJson(becomes, site.palette), css },
        reason,
        ...(worst
          ? { contrast: { ratio: rounded(worst.ratio), wanted: worst.wanted, before: rounded(worst.before) } }
          : {}),
      })),
      unmet: proposal.unmet.map(({ meeting, after, nearest, words }) => ({
        words,
        ink: meeting.ink,
        ground: meeting.ground ?? meeting.outside,
        wanted: meeting.wanted,
        after: rounded(after),
        nearest,
      })),
    }),
    null,
    2,
  )}\n`;
}

function becomesAsJson(becomes: Becomes, palette: Palette): Readonly<Record<string, unknown>> {
  if (becomes.kind === 'leave') return { leave: true, shade: 0 };
  const { value } = becomes;
  if (value.kind === 'role') return { role: value.role, shade: value.shade };
  if (value.kind === 'literal') return { shade: 0 };
  return { swatch: palette.swatches.find(({ id }) => id === value.swatchId)?.name ?? '', shade: value.shade };
}

/** The rows for people: found colour, what it paints, what it becomes and why. */
export function proposalAsText({ site, proposal }: Matched): string {
  const lines = proposal.rows.map((row) => {
    const becomes = row.becomes.kind === 'leave' ? 'left alone' : say(valueTold(site, row.becomes.value));
    return spoken([
      row.found.hex.padEnd(10),
      becomes.padEnd(26),
      row.css.padEnd(10),
      contrastWords(row).padEnd(14),
      row.found.paints,
    ]).join(' ');
  });
  const elements = [...site.pages.keys()].reduce((sum, id) => sum + pageOf(site, id).document.elements.length, 0);
  return [
    `${proposal.rows.length} colours on ${site.pages.size} ${site.pages.size === 1 ? 'page' : 'pages'} of ${elements} elements`,
    ...lines,
    ...(proposal.unmet.length > 0 ? ['', 'Not met:', ...proposal.unmet.map(({ words }) => `  ${say(words)}`)] : []),
    '',
  ].join('\n');
}

function contrastWords({ worst }: ProposedRow): string {
  return worst ? `${(Math.floor(worst.ratio * 10) / 10).toFixed(1)} of ${worst.wanted}` : '';
}

function rounded(ratio: number): number {
  return Number(ratio.toFixed(2));
}
