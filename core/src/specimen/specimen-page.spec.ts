import { parseHtml } from '../dom/parse-html.js';
import { toEnd } from '../to-end.js';
import { proveSite } from '../proof/prove-site.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import { dressSite, openSite, pageOf, withSpecimen, type SiteModel, type SiteSource } from '../site/site-model.js';
import { SPECIMEN_PATH } from '../site/specimen-path.js';
import type { Palette } from '../veneer/palette.js';
import { specimenPage } from './specimen-page.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'River', css: '#104a47' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Ink', css: '#1d2b2a' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
    { role: 'ink', swatchId: 3, shade: 0 },
  ],
};

const SOURCE: SiteSource = {
  pages: [
    {
      id: 1,
      name: 'Home',
      path: 'trips/index.html',
      html: '<!doctype html><html class="theme"><link rel=stylesheet href="../css/a.css"><body class="home"><div class="wrap"><form class="form"><input name=n value=x><button>Go</button></form></div><img src="../img/a.png">',
    },
    {
      id: 2,
      name: 'Gear',
      path: 'gear.html',
      html: '<!doctype html><link rel=stylesheet href="css/a.css"><link rel=stylesheet href="css/b.css"><body><div class="pop" hidden><p>Letter</p></div>',
    },
  ],
  stylesheets: {
    'css/a.css':
      'body { color: #1d2b2a; background: #fff } .wrap .form input[aria-invalid=true] { color: #bbb } .form input, button { color: #1d2b2a }',
    'css/b.css': '',
  },
  parts: [
    { id: 1, name: 'Form & "more"', kind: 'widget', selector: '.form', openers: [] },
    {
      id: 2,
      name: 'Letter',
      kind: 'pop-up',
      selector: '.pop',
      openers: [{ selector: '.pop', act: 'drop-attribute', name: 'hidden', value: '' }],
    },
    { id: 3, name: 'Gone', kind: 'widget', selector: '.gone', openers: [] },
  ],
  veneerPlace: 'head-end',
  prefix: 'brand',
};

function withIt(): SiteModel {
  const page = { id: 9, name: 'Specimen', path: SPECIMEN_PATH, html: specimenPage(SOURCE) };
  const source = { ...SOURCE, pages: [...SOURCE.pages, page] };
  return dressSite(openSite(source), [], PALETTE);
}

describe('the specimen', () => {
  const { elements } = parseHtml(specimenPage(SOURCE));
  const having = (name: string) => elements.filter(({ attributes }) => attributes.has(name));

  it('stands under the sheets of all pages, each once, and on the first page’s root and body', () => {
    expect(
      elements.filter(({ localName }) => localName === 'link').map(({ attributes }) => attributes.get('href')),
    ).toEqual(['css/a.css', 'css/b.css']);
    expect(elements.filter(({ classes }) => classes.includes('theme') || classes.includes('home')).length).toBe(2);
  });

  it('shows every kind that WCAG’s techniques and HTML name for forms, and each part inside what it stands in', () => {
    for (const name of ['h6', 'table', 'details', 'dialog', 'select', 'textarea', 'progress', 'blockquote'])
      expect(elements.some(({ localName }) => localName === name))
        .withContext(name)
        .toBeTrue();
    for (const name of ['disabled', 'readonly', 'checked', 'required', 'placeholder', 'aria-current'])
      expect(having(name).length).withContext(name).toBeGreaterThan(0);
    const copies = having('data-uv-variation').map(({ attributes }) => attributes.get('data-uv-variation'));
    expect(copies).toEqual(['as captured', 'filled in', 'refused', 'switched off', 'as captured']);
    expect(
      elements.filter(({ classes }) => classes.includes('form')).every(({ parent }) => parent?.classes[0] === 'wrap'),
    ).toBeTrue();
    // The hidden one is opened.
    expect(elements.find(({ classes }) => classes.includes('pop'))?.attributes.has('hidden')).toBeFalse();
  });

  it('stands aside: the site is what it was without it, until it is asked for', () => {
    const site = withIt();
    expect([...site.pages.keys()]).toEqual([1, 2]);
    expect([...withSpecimen(site).pages.keys()]).toEqual([1, 2, 9]);
    expect(pageOf(site, 9).document.elements.length).toBeGreaterThan(80);
    expect(toEnd(proveSite(site)).findings.some(({ places }) => places.some(({ pageId }) => pageId === 9))).toBeFalse();
  });

  it('tells what no page shows, and copies of what is meant elsewhere are no spill', () => {
    const site = withIt();
    const proof = toEnd(proveSite(withSpecimen(site)));
    expect([proof.pages, proof.hasSpecimen]).toEqual([2, true]);
    // #bbbbbb on white is 1.92 : 1 by WCAG 2.2's formula; no captured field says that it is refused.
    const refused = proof.findings.filter(
      ({ kind, level, places, figure }) =>
        kind === 'reads' &&
        level === 'fails' &&
        figure !== null &&
        figure < 2 &&
        places.every(({ pageId }) => pageId === 9),
    );
    expect(refused.length).toBe(1);
    const { number } = pageOf(site, 1).document.elements.find(({ localName }) => localName === 'button') ?? {
      number: 0,
    };
    const plan = planOverride(site, {
      pageId: 1,
      element: number,
      pseudo: '',
      reach: 'one',
      state: 'rest',
      property: 'color',
      value: { kind: 'role', role: 'accent', shade: 0 },
      width: 1280,
    });
    const put = plan.ok ? plan.put : [];
    expect(put.length).toBe(1);
    const next = toEnd(proveSite(withSpecimen(withOverrides(site, { put, drop: [] }))));
    expect(next.findings.filter(({ kind }) => kind === 'inside')).toEqual([]);
  });
});
