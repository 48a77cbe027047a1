import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { readExceptions } from '../site/exceptions.js';
import { dressSite, type SiteModel } from '../site/site-model.js';
import { judgeInWords } from '../testing/in-words.js';

const BODY = '<div class=card><p class=p>text</p><b class=sale>39</b></div><p class=off>y</p>';

// What inherits or follows a custom property is CSS Cascading 5 §7.2 and CSS Variables 1 §2.
describe('what is to be left alone', () => {
  const open = (theme: string, exceptions: Parameters<typeof readExceptions>[0]): SiteModel => {
    const site = openOnePage(theme, BODY);
    return dressSite(site, [], site.palette, { exceptions: readExceptions(exceptions) });
  };
  const found = (site: SiteModel, some: object, on = '.card') => {
    const made = fulfil(site, on, some);
    return judgeInWords(made.site, made.override, 1280).filter(({ text }) => text.includes('left alone'));
  };

  it('is named where it changes by a custom property that it follows', () => {
    const site = open(':root { --sale: #a3262a } .sale, .off { color: var(--sale) }', [
      { kind: 'color', target: '#a3262a' },
    ]);
    const [finding] = found(site, { property: '--sale', value: { kind: 'literal', css: '#104a47' } }, 'html');
    expect(finding).toEqual(
      jasmine.objectContaining({
        standing: 'fails',
        text: 'changes 2 that are to be left alone',
        spots: [
          { pageId: 1, element: numberOn(site, '.sale') },
          { pageId: 1, element: numberOn(site, '.off') },
        ],
      }),
    );
  });

  it('is named where it inherits, and not where it keeps its own', () => {
    const place = [{ kind: 'place' as const, target: '.sale' }];
    expect(found(open('.card { color: #333 }', place), { property: 'color' }).map(({ text }) => text)).toEqual([
      'changes 1 that is to be left alone',
    ]);
    expect(found(open('.card { color: #333 } .sale { color: #a3262a }', place), { property: 'color' })).toEqual([]);
    expect(found(open('.card { color: #333 }', []), { property: 'color' })).toEqual([]);
  });

  it('is named where it changes at another width, or in the state the override is for', () => {
    const place = [{ kind: 'place' as const, target: '.sale' }];
    const narrow = open('.card { color: #333 } @media (min-width: 700px) { .sale { color: #a3262a } }', place);
    expect(found(narrow, { property: 'color' }).map(({ text }) => text)).toEqual([
      'changes 1 that is to be left alone',
    ]);
    expect(
      found(open('.card { color: #333 }', place), { property: 'color', state: 'hover' }).map(({ text }) => text),
    ).toEqual(['changes 1 that is to be left alone']);
  });
});
