import { hexOf } from '../color/read-notation.js';
import { STATE_WORDS } from '../grid/rows.js';
import { REPORT_STYLE, pictureSection, type PartPicture } from '../proof/report.js';
import type { SiteException } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import { itemHolds } from '../requests/item-holds.js';
import type { ClientRequest, RequestItem } from '../requests/request.js';
import { escapeHtml } from '../text/escape-html.js';
import { colorOfValue } from '../veneer/override-value.js';
import type { Override } from '../veneer/override.js';
import { roleWords, rolesInOrder } from '../veneer/own-role.js';

/** What a hand-over note tells besides the site. */
export interface HandOverFacts {
  readonly site: string;
  /** When it was written, in words. */
  readonly at: string;
  readonly revision: number | null;
  /** Number of the revision visitors get; `null` for none. */
  readonly published: number | null;
  readonly exceptions: readonly (Pick<SiteException, 'target'> & { readonly reason: string })[];
  /** What the client asked for; none where there is no list. */
  readonly requests?: readonly ClientRequest[];
  /** Parts before and after; none in Markdown. */
  readonly pictures?: readonly PartPicture[];
  readonly unpictured?: readonly string[];
}

/** A part of the note: words, lists and one table, so that it can be written in more than one form. */
interface Section {
  readonly title: string;
  readonly words: readonly string[];
  readonly items?: readonly string[];
  readonly table?: { readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] };
}

/** The note for whoever keeps the site on, as Markdown. Source: CommonMark 0.31, tables as GitHub Flavored Markdown has them. */
export function handOverMarkdown(site: SiteModel, facts: HandOverFacts): string {
  const lines = [`# ${markdown(titleOf(facts))}`, '', markdown(standing(facts)), ''];
  for (const { title, words, items = [], table } of sectionsOf(site, facts)) {
    lines.push(`## ${title}`, '', ...words.flatMap((own) => [markdown(own), '']));
    if (items.length > 0) lines.push(...items.map((item) => `- ${markdown(item)}`), '');
    if (table) {
      const row = (cells: readonly string[]): string => `| ${cells.map(markdown).join(' | ')} |`;
      lines.push(row(table.head), row(table.head.map(() => '---')).replaceAll('\\-', '-'), ...table.rows.map(row), '');
    }
  }
  return lines.join('\n');
}

/** The same as one HTML file that needs no other, with its parts in pictures. */
export function handOverHtml(site: SiteModel, facts: HandOverFacts): string {
  const { pictures = [], unpictured = [] } = facts;
  const sections = sectionsOf(site, facts).map(({ title, words, items = [], table }) => {
    const row = (cells: readonly string[], cell: string): string =>
      `<tr>${cells.map((own) => `<${cell}>${escapeHtml(own)}</${cell}>`).join('')}</tr>`;
    return [
      `<h2>${escapeHtml(title)}</h2>`,
      ...words.map((own) => `<p>${escapeHtml(own)}</p>`),
      items.length > 0 ? `<ul>${items.map((item) => `<li>${escapeHtml(item)}</li>`).join('')}</ul>` : '',
      table ? `<table>${row(table.head, 'th')}${table.rows.map((cells) => row(cells, 'td')).join('')}</table>` : '',
    ].join('');
  });
  const title = escapeHtml(titleOf(facts));
  return [
    '<!doctype html>',
    '<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">',
    `<title>${title}</title><style>${REPORT_STYLE}</style></head><body>`,
    `<header><h1>${title}</h1><p class="soft">${escapeHtml(standing(facts))}</p></header><main>`,
    ...sections,
    pictureSection({ pictures, unpictured }),
    '</main></body></html>',
    '',
  ].join('\n');
}

function titleOf({ site }: HandOverFacts): string {
  return `${site}: what was changed, and how it is kept`;
}

function standing({ at, revision, published }: HandOverFacts): string {
  const served = published === null ? 'nothing is published yet' : `visitors get revision ${published}`;
  return `${at}; ${revision === null ? 'a draft that is no revision' : `revision ${revision}`}; ${served}.`;
}

function sectionsOf(site: SiteModel, { exceptions, requests = [] }: HandOverFacts): Section[] {
  const wishes = requests.flatMap(({ items }) => items);
  return [
    ...(wishes.length === 0
      ? []
      : [
          {
            title: 'What was asked for',
            words: [],
            table: {
              head: ['Wish', 'How it stands', 'Must not change'],
              rows: wishes.map((item) => [item.words, standingWords(site, item), item.keep]),
            },
          },
        ]),
    {
      title: 'What was done',
      words: [
        `${counted(site.overrides.length, 'override', 'overrides')} in one stylesheet that is loaded after the site’s own. No file of the site was changed.`,
        ...(site.ownCss.length > 0
          ? [`Beside them ${counted(site.ownCss.length, 'section has', 'sections have')} CSS that was written by hand.`]
          : []),
      ],
      table: { head: ['Part', 'Overrides', 'States', 'What'], rows: partRows(site) },
    },
    {
      title: 'Palette and roles',
      words: [
        site.source.asValues
          ? 'Colours stand in the sheet as plain values.'
          : `Colours stand at the top of the sheet, as custom properties named --${site.source.prefix}-…: changed there, all that uses them follows.`,
      ],
      table: { head: ['Role', 'Swatch', 'Colour'], rows: roleRows(site) },
    },
    {
      title: 'What was left alone, and why',
      words: exceptions.length === 0 ? ['Nothing was left alone on purpose.'] : [],
      items: exceptions.map(({ target, reason }) => `${target}: ${reason}`),
    },
    { title: 'Where it stands', words: [placeWords(site)] },
    {
      title: 'How to undo it',
      words: [
        'Take the stylesheet’s link, or the block between its markers, out: the site is as it was. Nothing else was touched.',
      ],
    },
    {
      title: 'After an update of the theme',
      words: [],
      items: [
        'Look whether the stylesheet is still loaded after the theme’s own.',
        'Capture the pages again: what lost its place is listed with the nearest match, one by one.',
        'Prove the site once more, save a revision and publish it.',
      ],
    },
  ];
}

/** How a wish stands, by proof where a look is named for it. */
function standingWords(site: SiteModel, item: RequestItem): string {
  const said = {
    'to do': 'open',
    asked: `asked back: ${item.question}`,
    refused: `not done: ${item.reason}`,
    done: 'done',
  };
  if (item.standing !== 'done' || item.looks.length === 0) return said[item.standing];
  const { places, misses, unseen } = itemHolds(site, item);
  if (misses > 0) return `done, but ${misses} of ${places} places have not the look`;
  return unseen.length > 0
    ? `done; ${unseen[0]}`
    : `holds on ${counted(places, 'place', 'places')}, in every state and width`;
}

function partRows({ source, overrides }: SiteModel): string[][] {
  const sections: readonly { readonly id: number | null; readonly name: string }[] = [
    ...source.parts,
    { id: null, name: 'Everywhere' },
  ];
  return sections.flatMap(({ id, name }) => {
    const own = overrides.filter(({ partId }) => partId === id);
    if (own.length === 0) return [];
    const states = [...new Set(own.map(({ state }) => STATE_WORDS[state].toLowerCase()))];
    return [[name, String(own.length), states.join(', '), [...new Set(own.map(useOf))].join(', ')]];
  });
}

/** What an override is about, in a word. */
function useOf({ property }: Override): string {
  if (/^(?:color|-webkit-text-fill-color|caret-color)$/.test(property)) return 'text';
  if (/^background/.test(property)) return 'fill';
  if (/^(?:border|outline)/.test(property)) return property.startsWith('outline') ? 'focus ring' : 'edge';
  if (/shadow/.test(property)) return 'shadow';
  if (/^(?:fill|stroke)$/.test(property)) return 'icon';
  return property;
}

function roleRows({ palette }: SiteModel): string[][] {
  return rolesInOrder(palette).flatMap((role) => {
    const fill = palette.roles.find((own) => own.role === role);
    const color = colorOfValue({ kind: 'role', role, shade: 0 }, palette);
    const swatch = palette.swatches.find(({ id }) => id === fill?.swatchId);
    return fill && color && swatch ? [[roleWords(role), swatch.name, hexOf(color)]] : [];
  });
}

function placeWords({ source: { veneerPlace } }: SiteModel): string {
  if (veneerPlace === 'head-end')
    return 'It is written to win from the end of the head, after all other stylesheets there.';
  if (veneerPlace === 'body-end') return 'It is written to win from the end of the body, after all other stylesheets.';
  return `It is written to win right after ${veneerPlace.slice('after:'.length)}.`;
}

function counted(count: number, one: string, many: string): string {
  return `${count.toLocaleString('en')} ${count === 1 ? one : many}`;
}

/** Foreign words as Markdown that means nothing else. Source: CommonMark 0.31 §2.4, backslash escapes. */
function markdown(words: string): string {
  return words.replaceAll(/\s/g, ' ').replaceAll(/[\\`*_{}[\]<>#+\-!|~&]/g, (found) => `\\${found}`);
}
