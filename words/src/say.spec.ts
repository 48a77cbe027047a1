import { EN } from './languages/en.js';
import type { Code, Message } from './message.js';
import { Speaker, say, speak } from './say.js';
import { isTold, spoken } from './spoken.js';

const ENGLISH = new Speaker({ tag: 'en', words: EN });

/** A language that says what English says, but for some texts. */
function speakerOf(tag: string, own: Partial<Record<Code, string>>): Speaker {
  return new Speaker({ tag, words: { ...EN, ...own } });
}

describe('what is told', () => {
  it('has its words by code and data, other messages and lists among them', () => {
    const told: Message = {
      code: 'verdict.changed',
      values: { property: 'color', element: { code: 'plain', values: { text: '.go' } } },
    };
    expect(say(told)).toBe('color of .go');
    expect(say({ code: 'verdict.unseen-basis', values: { unseen: ['@container card', 'forced colours'] } })).toBe(
      'Rules that have a say hang on @container card, forced colours. What they do then is not in this verdict.',
    );
    expect(say('words already')).toBe('words already');
  });

  it('is told from what only looks like it, which may come from a file that somebody made', () => {
    expect(isTold({ code: 'left-out.larger', values: { size: '10 MB' } })).toBeTrue();
    for (const other of [
      'Larger',
      null,
      [],
      { code: 'left-out.of-a-later-version' },
      { code: '__proto__' },
      { code: 'left-out.larger' },
      { code: 'left-out.larger', values: {}, html: '<b>' },
    ])
      expect(isTold(other)).withContext(JSON.stringify(other)).toBeFalse();
  });

  it('stands without a capital inside a sentence', () => {
    expect(say({ code: 'state.hover' })).toBe('Hover');
    expect(say({ code: 'state.hover', isInner: true })).toBe('hover');
  });

  // Source: Unicode CLDR, number symbols and date patterns of English, British English, German and Japanese.
  it('writes figures and moments as its language does', () => {
    const german = speakerOf('de', {});
    expect([ENGLISH.figure(12345), german.figure(12345)]).toEqual(['12,345', '12.345']);
    const day = new Date('2026-05-04T00:00:00Z');
    expect([ENGLISH.moment(day, 'day'), german.moment(day, 'day')]).toEqual(['May 4', '4. Mai']);
    const english = new Speaker({ tag: 'en', dates: 'en-GB', words: EN });
    expect(english.moment(new Date('2026-05-04T09:05:00'), 'short')).toBe('4 May 2026, 09:05');
    const japanese = new Speaker({ tag: 'en', dates: 'ja', words: EN });
    expect(japanese.moment(new Date('2026-05-04T09:05:00'), 'short')).toBe('2026/05/04 9:05');
  });

  // Source: Unicode CLDR 47, plural rules: English has one and other; Polish one, few and many; Arabic six forms.
  it('takes the plural of its language', () => {
    const english = [0, 1, 2].map((count) => ENGLISH.say({ code: 'verdict.spills', values: { count } }));
    expect(english).toEqual(['no spill', 'spills to 1', 'spills to 2']);
    const polish = speakerOf('pl', {
      'verdict.unseen': '{count, plural, one {# warunek} few {# warunki} many {# warunków} other {# warunku}}',
    });
    expect([1, 2, 4, 5, 12, 22].map((count) => polish.say({ code: 'verdict.unseen', values: { count } }))).toEqual([
      '1 warunek',
      '2 warunki',
      '4 warunki',
      '5 warunków',
      '12 warunków',
      '22 warunki',
    ]);
    const arabic = speakerOf('ar-u-nu-latn', {
      'verdict.unseen': '{count, plural, zero {z} one {o} two {t} few {f} many {m} other {x}}',
    });
    expect(
      [0, 1, 2, 3, 11, 100].map((count) => arabic.say({ code: 'verdict.unseen', values: { count } })).join(''),
    ).toBe('zotfmx');
  });

  // Source: ECMA-402, Intl.ListFormat and Intl.NumberFormat of the language.
  it('writes lists and numbers as its language does', () => {
    const german = speakerOf('de', { 'verdict.reaches': 'erreicht {reached, number} von {places, number}' });
    expect(german.say({ code: 'verdict.reaches', values: { reached: 1200, places: 3400.5 } })).toBe(
      `erreicht ${new Intl.NumberFormat('de').format(1200)} von ${new Intl.NumberFormat('de').format(3400.5)}`,
    );
  });

  it('keeps what looks like markup, braces and quotes in the data as they are', () => {
    for (const text of ['<b>x</b>', '{count}', "it's", '#', '\u0000', 'שלום', ''])
      expect(say({ code: 'plain', values: { text } })).toBe(text);
  });

  it('is said in the language that was chosen for the page', () => {
    speak({ tag: 'de', words: { ...EN, 'verdict.clear': 'Leeren' } });
    expect(say({ code: 'verdict.clear' })).toBe('Leeren');
    speak({ tag: 'en', words: EN });
    expect(say({ code: 'verdict.clear' })).toBe('Clear it');
  });

  it('says which datum is missing', () => {
    expect(() => say({ code: 'plain' })).toThrowError(/text/);
  });
});

describe('an answer', () => {
  it('has each message in it said, however deep, and all else left as it is', () => {
    const places = new Map([['a', 1]]);
    const answer = {
      findings: [{ text: { code: 'verdict.clear' } as Message, spots: [{ pageId: 1, element: 2 }] }],
      none: null,
      places,
      code: 'not-writable',
    };
    const said = spoken(answer);
    expect(said.findings).toEqual([{ text: 'Clear it', spots: [{ pageId: 1, element: 2 }] }]);
    expect(said.places).toBe(places);
    expect([said.none, said.code]).toEqual([null, 'not-writable']);
  });
});
