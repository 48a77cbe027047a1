/** Sites as large as they come, made up alike at every run: pages and sheets by path. */

const SECTIONS = ['Trips', 'Moorings', 'Tides', 'Boats', 'Weather', 'Logbook', 'Shop'];

function sheet(rules, seed) {
  let css = '';
  for (let i = 0; i < rules; i += 1) {
    const color = `#${((seed * 2654435761 + i * 40503) >>> 0).toString(16).padStart(8, '0').slice(0, 6)}`;
    css += `.s${seed}-c${i} > .m${i % 50} .b${i % 300}:hover, .s${seed}-r${i} { color: ${color}; border-color: ${color}; background-color: rgb(${i % 256} ${(i * 7) % 256} ${(i * 13) % 256}); padding: ${i % 9}px }\n`;
  }
  return css;
}

const THEME = `:root { --hull: #104a47; --sand: #e8dcc4 } body { margin: 0; color: #222; background: #fff; font: 16px/1.5 sans-serif }
header { display: flex; gap: 16px; padding: 12px; background: var(--hull) } header a { color: #cde; text-decoration: none } header a:hover { color: #fff }
.card { display: inline-block; width: 240px; margin: 8px; padding: 12px; border: 1px solid #ccc; background: var(--sand) } .card h2 { font-size: 18px; color: var(--hull) }
.card a { color: #1a5cab } .card a:hover { color: #0b3a75 } .go { padding: 6px 12px; border: 0; color: #fff; background: #b4582a } .go:hover { background: #8f4520 } .go:disabled { background: #bbb }
.card:has(.tag) h2 { color: #632 } .list li:nth-child(odd) { background: #f4f0e6 } @media (max-width: 600px) { .card { width: auto; display: block } }`;

function body(cards, page) {
  const card = (i) =>
    `<section class="card k${i % 9}"><h2>${SECTIONS[i % 7]} ${i}</h2><p>Down the <a href="t${i}.html">river</a> past <b>the weir</b></p><ul class="list"><li>one</li><li>two</li><li>three</li></ul><button class="go" type="button">Book</button>${i % 4 === 0 ? '<span class="tag">new</span>' : ''}</section>`;
  return `<header><a href="index.html" class="home">Slow River</a>${SECTIONS.map((name) => `<a href="${name.toLowerCase()}.html">${name}</a>`).join('')}</header><main><h1>Page ${page}</h1>${Array.from({ length: cards }, (_, i) => card(i)).join('')}</main><footer><a href="imprint.html">Imprint</a></footer>`;
}

const page = (number, cards, sheets) =>
  `<!doctype html><html lang="en"><head><title>Page ${number}</title>${sheets.map((path) => `<link rel="stylesheet" href="${path}">`).join('')}</head><body>${body(cards, number)}</body></html>`;

function site(pages, cards, rules) {
  const sheets = { 'theme.css': THEME, ...(rules > 0 ? { 'vendor.css': sheet(rules, 1) } : {}) };
  return {
    ...sheets,
    ...Object.fromEntries(
      Array.from({ length: pages }, (_, i) => [
        i === 0 ? 'index.html' : `p${i}.html`,
        page(i, cards, Object.keys(sheets)),
      ]),
    ),
  };
}

/** Files of a site by path. */
export const LARGE_SITES = {
  /** 50 pages of about 1,900 elements each, and a sheet of 6,000 rules. */
  fifty: () => site(50, 172, 6000),
  /** One page of about 20,000 elements. */
  long: () => site(1, 1818, 6000),
  /** 200 small pages. */
  many: () => site(200, 8, 2000),
  /** 30 sheets of 3.9 MB together. */
  sheets: () => {
    const sheets = Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`s${i}.css`, sheet(600, i + 2)]));
    return {
      'theme.css': THEME,
      ...sheets,
      'index.html': page(0, 20, ['theme.css', ...Object.keys(sheets)]),
      'p1.html': page(1, 20, ['theme.css', ...Object.keys(sheets)]),
    };
  },
};
