import { numberOn, openOnePage } from '../testing/one-page-site.js';
import { followersOf } from './followers.js';

// CSS Cascading 5 §7.2: what declares nothing takes the value of its parent.
describe('what follows an inherited value', () => {
  const site = openOnePage(
    '.card { color: teal } b { color: red } a:link { color: blue }',
    '<div class=card><p class=p>x<b class=b>y<i class=i>z</i></b></p><a href=1 class=a>l</a></div><div class=card><em class=em>e</em></div><p>o</p>',
  );

  it('is everything inside that declares none of its own, of all alike', () => {
    expect(followersOf(site, 1, numberOn(site, '.card'), 'color', 1280).map(({ element }) => element)).toEqual([
      numberOn(site, '.card'),
      numberOn(site, '.p'),
      numberOn(site, '.card') + 5,
      numberOn(site, '.em'),
    ]);
  });

  it('is what declares it itself and what is in that', () => {
    expect(followersOf(site, 1, numberOn(site, '.b'), 'color', 1280).map(({ element }) => element)).toEqual([
      numberOn(site, '.b'),
      numberOn(site, '.i'),
    ]);
  });
});
