import { toEnd } from '../to-end.js';
import { readPages, readSheets } from './read-pages.js';
import { openSite, pageOf } from './site-model.js';

const PAGES = [1, 2, 3];
const siteOf = (stylesheets: Readonly<Record<string, string>>): ReturnType<typeof openSite> =>
  openSite({
    pages: PAGES.map((id) => ({
      id,
      name: `Page ${id}`,
      path: `${id}.html`,
      html: `<!doctype html><link rel=stylesheet href=a.css><p class=x>page ${id}`,
    })),
    stylesheets,
    parts: [],
    veneerPlace: 'head-end',
    prefix: 'brand',
    asValues: false,
    names: {},
    hoverOnly: false,
  });

describe('readPages', () => {
  it('reads pages one a step, and ends when none is left', () => {
    const site = siteOf({ 'a.css': '.x { color: red }' });
    pageOf(site, 2);
    expect([...readPages(site)].map(({ read, pages }) => `${read} of ${pages}`)).toEqual([
      '1 of 3',
      '2 of 3',
      '3 of 3',
    ]);
    expect([...site.closed.unread]).toEqual([]);
    expect([...readPages(site)]).toEqual([]);
  });

  it('gives a sign after each stylesheet, before the first page is read', () => {
    const site = siteOf({ 'a.css': '.x { color: red }', 'b.css': '.y {}', 'c.css': '.z {}' });
    expect([...readPages(site)].map(({ read }) => read)).toEqual([0, 0, 0, 1, 2, 3]);
  });

  it('stops before a sheet that is more than what is kept of what was read', () => {
    const site = siteOf({ 'a.css': '.x {}', 'vast.css': ' '.repeat(9_000_000), 'c.css': '.z {}' });
    expect([...readSheets(site)].length).toBe(1);
    toEnd(readPages(site));
    expect([...readSheets(site)]).toEqual([]);
  });
});
