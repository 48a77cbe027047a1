import { spoken } from '@upper-veneer/words';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { elementOf, pageOf } from '../site/site-model.js';
import { tellersOf } from './tellers.js';
import { judgeInWords } from '../testing/in-words.js';

const SWITCH = `.slider { background: #ccc } input:checked + .slider { background: #2196f3 } input:disabled + .slider { background: #eee } .menu { color: #333 } .box[data-state=open] .menu { color: #06c } .drop { background: #fff } [aria-expanded=true] + .drop { background: #def } label:has(:checked) { color: #0a0 } label { color: #222 }`;
const BODY =
  '<label class=l><input type=checkbox class=tick><span class=slider></span></label><div class=box data-state=closed><p class=menu>x</p></div><button aria-expanded=false class=b>More</button><div class=drop>y</div><p class=plain>z</p>';

// What tells on what is read off the rules above by hand; Selectors 4 §15 for the combinators.
describe('states that live elsewhere', () => {
  const site = openOnePage(SWITCH, BODY);
  const rows: readonly (readonly [target: string, tellers: readonly string[]])[] = [
    ['.slider', ['input.tick is checked', 'input.tick is disabled', 'input.tick is checked and disabled']],
    ['.menu', ['div.box is open']],
    ['.drop', ['button.b is expanded']],
    ['.plain', []],
  ];
  for (const [target, words] of rows) {
    it(`tell on ${target}: ${words.join(', ') || 'none'}`, () => {
      expect(
        spoken(
          tellersOf(pageOf(site, 1), elementOf(pageOf(site, 1), numberOn(site, target)), '', { width: 1280 }).map(
            (teller) => teller.words,
          ),
        ),
      ).toEqual([...words]);
    });
  }

  const hidden = (theme: string): string[] => {
    const made = fulfil(openOnePage(theme, BODY), '.slider', { property: 'background-color' });
    return judgeInWords(made.site, made.override, 1280)
      .map(({ text }) => text)
      .filter((text) => text.startsWith('hides that'));
  };

  it('are named where an override for rest hides them, and not where they still show', () => {
    // Both rules of the theme weigh as much as the override's, which stands last.
    expect(hidden('.slider { background: #ccc } :where(input:checked) + .slider { background: #2196f3 }')).toContain(
      'hides that input.tick is checked',
    );
    expect(hidden('.slider { background: #ccc } input:checked + .slider { background: #2196f3 }')).toEqual([]);
    expect(hidden('.slider { background: #ccc }')).toEqual([]);
  });
});
