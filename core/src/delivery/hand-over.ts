import { inner, message, type Say } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import { stateTold } from '../grid/rows.js';
import { REPORT_STYLE, pictureSection, type PartPicture } from '../proof/report.js';
import type { SiteException } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import { itemHolds } from '../requests/item-holds.js';
import type { ClientRequest, RequestItem } from '../requests/request.js';
import { escapeHtml } from '../text/escape-html.js';
import { colorOfValue } from '../veneer/override-value.js';
import type { Override } from '../veneer/override.js';
import { roleTold, rolesInOrder } from '../veneer/own-role.js';

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
export function handOverMarkdown(site: SiteModel, facts: HandOverFacts, say: Say): string {
  const lines = [`# ${markdown(titleOf(facts, say))}`, '', markdown(standing(facts, say)), ''];
  for (const { title, words, items = [], table } of sectionsOf(site, facts, say)) {
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
export function handOverHtml(site: SiteModel, facts: HandOverFacts, say: Say): string {
  const { pictures = [], unpictured = [] } = facts;
  const sections = sectionsOf(site, facts, say).map(({ title, words, items = [], table }) => {
    const row = (cells: readonly string[], cell: string): string =>
      `<tr>${cells.map((own) => `<${cell}>${escapeHtml(own)}</${cell}>`).join('')}</tr>`;
    return [
      `<h2>${escapeHtml(title)}</h2>`,
      ...words.map((own) => `<p>${escapeHtml(own)}</p>`),
      items.length > 0 ? `<ul>${items.map((item) => `<li>${escapeHtml(item)}</li>`).join('')}</ul>` : '',
      table ? `<table>${row(table.head, 'th')}${table.rows.map((cells) => row(cells, 'td')).join('')}</table>` : '',
    ].join('');
  });
  const title = escapeHtml(titleOf(facts, say));
  return [
    '<!doctype html>',
    '<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">',
    `<title>${title}</title><style>${REPORT_STYLE}</style></head><body>`,
    `<header><h1>${title}</h1><p class="soft">${escapeHtml(standing(facts, say))}</p></header><main>`,
    ...sections,
    pictureSection({ pictures, unpictured }, say),
    '</main></body></html>',
    '',
  ].join('\n');
}

function titleOf({ site }: HandOverFacts, say: Say): string {
  return say(message('document.what-was-changed-how', { site }));
}

function standing({ at, revision, published }: HandOverFacts, say: Say): string {
  return say(
    message('note.standing', {
      at,
      draft: revision === null ? 'draft' : 'revision',
      revision: revision ?? 0,
      served: published === null ? 'none' : 'some',
      published: published ?? 0,
    }),
  );
}

function sectionsOf(site: SiteModel, { exceptions, requests = [] }: HandOverFacts, say: Say): Section[] {
  const wishes = requests.flatMap(({ items }) => items);
  return [
    ...(wishes.length === 0
      ? []
      : [
          {
            title: say(message('document.what-was-asked-for')),
            words: [],
            table: {
              head: [
                say(message('note.wish')),
                say(message('note.how-it-stands')),
                say(message('note.must-not-change')),
              ],
              rows: wishes.map((item) => [item.words, standingWords(site, item, say), item.keep]),
            },
          },
        ]),
    {
      title: say(message('document.what-was-done')),
      words: [
        say(message('document.override-overrides-stylesheet-loaded', { overrides: site.overrides.length })),
        ...(site.ownCss.length > 0
          ? [say(message('document.beside-them-section-has', { ownCss: site.ownCss.length }))]
          : []),
      ],
      table: {
        head: [
          say(message('note.part')),
          say(message('note.overrides')),
          say(message('note.states')),
          say(message('note.what')),
        ],
        rows: partRows(site, say),
      },
    },
    {
      title: say(message('document.palette-roles')),
      words: [
        site.source.asValues
          ? say(message('note.plain-values'))
          : say(message('note.properties', { prefix: `--${site.source.prefix}-…` })),
      ],
      table: {
        head: [say(message('note.role')), say(message('note.swatch')), say(message('note.colour'))],
        rows: roleRows(site, say),
      },
    },
    {
      title: say(message('document.what-was-left-alone')),
      words: exceptions.length === 0 ? [say(message('document.nothing-was-left-alone'))] : [],
      items: exceptions.map(({ target, reason }) => `${target}: ${reason}`),
    },
    { title: say(message('document.where-stands')), words: [placeWords(site, say)] },
    {
      title: say(message('document.how-undo')),
      words: [say(message('document.take-stylesheet-link-or'))],
    },
    {
      title: say(message('document.after-update-theme')),
      words: [],
      items: [
        say(message('document.look-whether-stylesheet-still')),
        say(message('document.capture-pages-again-what')),
        say(message('document.prove-site-once-more')),
      ],
    },
  ];
}

/** How a wish stands, by proof where a look is named for it. */
function standingWords(site: SiteModel, item: RequestItem, say: Say): string {
  const said = {
    'to do': say(message('note.open')),
    asked: say(message('document.asked-back', { question: item.question })),
    refused: say(message('document.not-done', { reason: item.reason })),
    done: say(message('note.done')),
  };
  if (item.standing !== 'done' || item.looks.length === 0) return said[item.standing];
  const { places, misses, unseen } = itemHolds(site, item);
  if (misses > 0) return say(message('document.done-but-places-have', { misses, places }));
  return unseen.length > 0
    ? say(message('note.done-unseen', { unseen: unseen[0] }))
    : say(message('note.holds', { places }));
}

function partRows({ source, overrides }: SiteModel, say: Say): string[][] {
  const sections: readonly { readonly id: number | null; readonly name: string }[] = [
    ...source.parts,
    { id: null, name: say(message('note.everywhere')) },
  ];
  return sections.flatMap(({ id, name }) => {
    const own = overrides.filter(({ partId }) => partId === id);
    if (own.length === 0) return [];
    const states = [...new Set(own.map(({ state }) => say(inner(stateTold(state)))))];
    return [
      [
        name,
        String(own.length),
        states.join(', '),
        [...new Set(own.map((override) => useOf(override, say)))].join(', '),
      ],
    ];
  });
}

/** What an override is about, in a word. */
function useOf({ property }: Override, say: Say): string {
  if (/^(?:color|-webkit-text-fill-color|caret-color)$/.test(property)) return say(message('note.use.text'));
  if (/^background/.test(property)) return say(message('note.use.fill'));
  if (/^(?:border|outline)/.test(property))
    return say(message(property.startsWith('outline') ? 'note.use.ring' : 'note.use.edge'));
  if (/shadow/.test(property)) return say(message('note.use.shadow'));
  if (/^(?:fill|stroke)$/.test(property)) return say(message('note.use.icon'));
  return property;
}

function roleRows({ palette }: SiteModel, say: Say): string[][] {
  return rolesInOrder(palette).flatMap((role) => {
    const fill = palette.roles.find((own) => own.role === role);
    const color = colorOfValue({ kind: 'role', role, shade: 0 }, palette);
    const swatch = palette.swatches.find(({ id }) => id === fill?.swatchId);
    return fill && color && swatch ? [[say(inner(roleTold(role))), swatch.name, hexOf(color)]] : [];
  });
}

function placeWords({ source: { veneerPlace } }: SiteModel, say: Say): string {
  if (veneerPlace === 'head-end') return say(message('document.written-win-from-end'));
  if (veneerPlace === 'body-end') return say(message('document.written-win-from-body-end'));
  return say(message('document.written-win-right-after', { sheet: veneerPlace.slice('after:'.length) }));
}

/** Foreign words as Markdown that means nothing else. Source: CommonMark 0.31 §2.4, backslash escapes. */
function markdown(words: string): string {
  return words.replaceAll(/\s/g, ' ').replaceAll(/[\\`*_{}[\]<>#+\-!|~&]/g, (found) => `\\${found}`);
}
