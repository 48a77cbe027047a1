import { spoken } from '@upper-veneer/words';
import { dressSite, openSite } from '../site/site-model.js';
import { numberOn, openOnePage } from '../testing/one-page-site.js';
import { findColors, foundColors } from './find-colors.js';
import { describeHome } from './home-words.js';
import { prominenceOf } from './prominence.js';

describe('foundColors', () => {
  const THEME = `:root { --violet: #7a2bd6 }
.card { background: var(--violet); color: #fff; border: 2px solid currentcolor }
.near { background: #7a2bd8; color: #fff }
.go { background: #e8b21e; color: #111 }
.go:hover { background: #c79612 }
.pay-error { color: #777 }`;
  const BODY =
    '<div class=card>Card</div><div class=near>Near</div><button class=go>Go</button><p class="note pay-error">Mind</p><p style="color: #090">Inline</p>';
  const site = openOnePage(THEME, BODY);
  const { rows, meetings } = foundColors(site, { kind: 'site' }, 1280);
  const row = (id: string): (typeof rows)[number] => {
    const found = rows.find((entry) => entry.id === id);
    if (!found) throw new Error(`No ${id} among ${rows.map((entry) => entry.id).join(', ')}`);
    return found;
  };

  it('tells colours apart by what they do, and puts near-duplicates together', () => {
    // CIEDE2000 of #7a2bd6 and #7a2bd8 is far under 2.3.
    expect(row('ground #7a2bd6').hexes).toEqual(['#7a2bd6', '#7a2bd8']);
    expect(spoken(row('action #e8b21e').paints)).toBe('fill of Go');
  });

  it('names the home of each: rule, custom property, style attribute', () => {
    expect(row('ground #7a2bd6').homes.map(({ kind }) => kind)).toEqual(['custom-property', 'rule']);
    expect(spoken(describeHome(row('ground #7a2bd6').homes[0]))).toMatch(/^--violet, used in /);
    expect(row('text #009900').homes[0].kind).toBe('inline');
  });

  it('tells how far it is: never back, to its end, each page by its name', () => {
    const pages = ['a.html', 'b.html'].map((path, i) => ({ id: i + 1, name: path, path, html: '<p>Tide' }));
    const two = openSite({ ...site.source, pages });
    const steps = [...findColors(two, { kind: 'site' }, 1280)];
    expect(two.closed.unread).toEqual([]);
    expect([...new Set(steps.map(({ page }) => page))]).toEqual(['a.html', 'b.html']);
    const shares = steps.map(({ share }) => share);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect([shares[0], shares.at(-1)]).toEqual([0, 1]);
  });

  it('lists what shows in a state alone, tied to what it is at rest', () => {
    expect(row('action #c79612').states).toEqual(['hover', 'active']);
    expect(row('action #c79612').atRest).toBe('action #e8b21e');
  });

  it('finds what is read on what, by WCAG 2.2 contrast', () => {
    // #111111 on #e8b21e: relative luminances 0.00561 and 0.49163 by the formula of WCAG 2.2, (L1 + 0.05) / (L2 + 0.05).
    const meeting = meetings.find(({ ink, ground }) => ink === 'label #111111' && ground === 'action #e8b21e');
    expect(meeting?.before).toBeCloseTo((0.49163 + 0.05) / (0.00561 + 0.05), 1);
  });

  it('says what warns by the names makers give it', () => {
    expect(row('text #777777').isWarning).toBe(true);
  });

  it('follows the text where a colour is the current one', () => {
    const edge = rows.find(({ job }) => job === 'line');
    expect(edge?.places.every(({ followsText }) => followsText)).toBe(true);
  });

  it('lists the caret and the native accent where the page gives them, and nowhere else', () => {
    const page = openOnePage(
      'input { accent-color: #7a2bd6; caret-color: #7a2bd6 }',
      '<input type=checkbox><input type=text><select><option>o</option></select>',
    );
    const jobs = (of: typeof page): string[] =>
      foundColors(of, { kind: 'site' }, 1280)
        .rows.filter(({ job }) => job === 'caret' || job === 'accent')
        .map(({ id, elements }) => `${id} ${elements}`);
    expect(jobs(page).sort()).toEqual(['accent #7a2bd6 1', 'caret #7a2bd6 1']);
    expect(jobs(openOnePage('', '<input type=checkbox><input type=text>'))).toEqual([]);
  });

  it('looks at the site as it arrived, whatever the veneer says', () => {
    const dressed = dressSite(
      site,
      [
        {
          id: 'x',
          pageId: 1,
          element: numberOn(site, '.go'),
          pseudo: '',
          reach: 'one',
          state: 'rest',
          partId: null,
          property: 'background-color',
          value: { kind: 'literal', css: '#000' },
          selector: '.go',
          important: false,
        },
      ],
      site.palette,
    );
    expect(foundColors(dressed, { kind: 'site' }, 1280).rows.map(({ id }) => id)).toContain('action #e8b21e');
  });
});

describe('prominenceOf', () => {
  it('ranks a filled action over a quiet one, and a quiet one over a link of the same words', () => {
    const site = openOnePage(
      '.a { background: #b4582a; color: #fff; border: 0 } .b { background: #f1ede4; color: #333; border: 0 } a { color: #333 }',
      '<button class=b>Look</button><a href="#x">Look</a><button class=a>Look</button>',
    );
    const ranked = prominenceOf(site, { kind: 'site' }, 1280).map(({ element }) => element);
    expect(ranked).toEqual([numberOn(site, '.a'), numberOn(site, '.b'), numberOn(site, 'a')]);
  });
});
