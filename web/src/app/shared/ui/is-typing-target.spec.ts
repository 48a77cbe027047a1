import { isTypingTarget } from './is-typing-target';

describe('isTypingTarget', () => {
  const rows: readonly (readonly [html: string, typing: boolean])[] = [
    ['<input>', true], ['<input type="text">', true], ['<textarea></textarea>', true], ['<select></select>', true], ['<input type="range">', false], ['<input type="checkbox">', false], ['<button></button>', false], ['<p></p>', false],
  ];
  for (const [html, typing] of rows) {
    it(`${html} ${typing ? 'takes' : 'does not take'} keys for text`, () => {
      const holder = document.createElement('div');
      holder.innerHTML = html;
      expect(isTypingTarget(holder.firstChild)).toBe(typing);
    });
  }
});
