import { mergeText } from './merge-text';
import { rememberText, rememberedText } from './remembered-text';

describe('an edited sheet over a draft that changes', () => {
  const BASE = 'a\nb\nc\nd\ne';

  it('has the changes of both sides', () => {
    expect(mergeText(BASE, 'a\nB\nc\nd\ne', 'a\nb\nc\nd\ne\nf')).toEqual({ text: 'a\nB\nc\nd\ne\nf', conflicts: 0 });
    expect(mergeText(BASE, BASE, 'x')).toEqual({ text: 'x', conflicts: 0 });
    expect(mergeText(BASE, 'y', BASE)).toEqual({ text: 'y', conflicts: 0 });
    expect(mergeText(BASE, 'a\nB\nc\nd\ne', 'a\nB\nc\nd\ne')).toEqual({ text: 'a\nB\nc\nd\ne', conflicts: 0 });
  });

  it('keeps what was typed where both sides changed the same, and says so', () => {
    expect(mergeText(BASE, 'a\nmine\nc\nd\ne', 'a\ntheirs\nc\nd\nE')).toEqual({
      text: 'a\nmine\nc\nd\nE',
      conflicts: 1,
    });
  });

  it('is kept for another day, and a damaged memory is none', () => {
    rememberText(-1, { base: 'a', text: 'b' });
    expect(rememberedText(-1)).toEqual({ base: 'a', text: 'b' });
    localStorage.setItem('uv-sheet-text--1', '{"base":');
    expect(rememberedText(-1)).toBeNull();
    rememberText(-1, null);
    expect(localStorage.getItem('uv-sheet-text--1')).toBeNull();
  });
});
