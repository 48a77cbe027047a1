import { isGeneratedClass, isLastingId, lastingClasses } from './class-names.js';

describe('isGeneratedClass', () => {
  // Names as style libraries and build tools make them (common practice), beside names people give.
  const generated = [
    'css-1x7q9ka',
    'css-k008qs',
    'sc-bdVaJa1',
    'sc-1a2b3c4',
    'jss-4x2q91',
    'Button_root__3xF9q',
    'styles_card__1a2B3',
    '_3fKq2',
    'emotion-9x8c7v',
    'a1b2c3d4',
  ];
  const given = [
    'btn',
    'btn-primary',
    'qs-go',
    'card',
    'nav-item',
    'col-12',
    'mt-4',
    'header2',
    'step-1',
    'grid_item',
    'is-open',
    'price',
    'h1',
    'page-book',
    'w-100',
    'columns',
    'trip',
    'colophon',
    'flatpickr-day',
  ];
  for (const name of generated) it(`takes ${name} for generated`, () => expect(isGeneratedClass(name)).toBe(true));
  for (const name of given) it(`takes ${name} for given`, () => expect(isGeneratedClass(name)).toBe(false));

  it('leaves out states and hashes from what can be leant on', () => {
    expect(lastingClasses(['btn', 'is-active', 'css-1x7q9ka', 'current'])).toEqual(['btn']);
    expect(isLastingId('reserve')).toBe(true);
    expect(isLastingId('input-48213')).toBe(false);
    expect(isLastingId(':r3:')).toBe(false);
  });
});
