import { isEmptied, isTypingTarget } from './is-typing-target';

describe('isTypingTarget', () => {
  const rows: readonly (readonly [html: string, typing: boolean])[] = [
    ['<input>', true],
    ['<input type="text">', true],
    ['<textarea></textarea>', true],
    ['<select></select>', true],
    ['<input type="range">', false],
    ['<input type="checkbox">', false],
    ['<button></button>', false],
    ['<p></p>', false],
  ];
  for (const [html, typing] of rows) {
    it(`${html} ${typing ? 'takes' : 'does not take'} keys for text`, () => {
      const holder = document.createElement('div');
      holder.innerHTML = html;
      expect(isTypingTarget(holder.firstChild)).toBe(typing);
    });
  }

  it('tells an emptied field, in which there is no typing to undo', () => {
    const field = document.createElement('input');
    expect(isEmptied(field)).toBe(true);
    field.value = '#12';
    expect(isEmptied(field)).toBe(false);
    expect(isEmptied(document.createElement('button'))).toBe(false);
  });
});
