import { languageFor } from './languages.js';
import { Speaker } from './say.js';

describe('languageFor', () => {
  // Source: RFC 4647 §3.4, lookup: a range is cut from its end until a tag is found.
  it('finds the language of a tag of a region, and English for what there is not', () => {
    expect(languageFor(['en-GB']).tag).toBe('en');
    expect(languageFor(['x-none', 'en']).tag).toBe('en');
    expect(languageFor([]).tag).toBe('en');
  });

  it('says English between marks where that is asked for by name', () => {
    const speaker = new Speaker(languageFor(['en-XA']));
    expect(speaker.say({ code: 'file.line', values: { line: 3 } })).toBe('\u200bline \u00ad3\u200b\u00ad');
  });
});
