import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Ply } from '@upper-veneer/core';
import type { ExplanationView } from '../../shared/engine/engine-api';
import { PliesList } from './plies-list';

function ply(some: Partial<Spoken<Ply>>): Spoken<Ply> {
  return {
    value: 'red',
    settled: 'red',
    declaration: 'color: red',
    source: {
      kind: 'rule',
      sheet: 'css/a.css',
      at: { offset: 0, line: 12, column: 1 },
      selector: '.a',
      isVeneer: false,
    },
    specificity: [0, 1, 0],
    layer: null,
    important: false,
    under: null,
    ...some,
  };
}

describe('PliesList', () => {
  async function text(explanation: Partial<Spoken<ExplanationView>>): Promise<string[]> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PliesList);
    fixture.componentRef.setInput('heading', 'Why');
    fixture.componentRef.setInput('names', new Map([['var(--brand-willow)', { words: 'Willow', hex: '#b4582a' }]]));
    fixture.componentRef.setInput('explanation', {
      property: 'color',
      resolved: 'rgb(255, 0, 0)',
      plies: [],
      inheritedFrom: null,
      isInitial: false,
      discarded: [],
      ...explanation,
    });
    await fixture.whenStable();
    return [...(fixture.nativeElement as HTMLElement).querySelectorAll('li, p')].map((node) => {
      const parts = node.localName === 'li' ? [...node.querySelectorAll('.value, .from, .specificity')] : [node];
      return parts.map((part) => (part.textContent ?? '').replace(/\s+/g, ' ').trim()).join(' ');
    });
  }

  it('names value, place, reason and specificity of each ply', async () => {
    const veneer = { kind: 'rule', sheet: 'veneer.css', at: null, selector: '.b .a', isVeneer: true } as const;
    expect(
      await text({
        plies: [
          ply({ value: 'var(--brand-willow)', source: veneer, specificity: [0, 2, 0] }),
          ply({ important: false, under: { criterion: 'specificity', text: 'fewer classes' } }),
        ],
      }),
    ).toEqual(['Willow your override .b .a 0·2·0', 'red a.css 12 · fewer classes 0·1·0']);
  });

  it('tells of attributes, browser defaults and importance', async () => {
    expect(
      await text({
        plies: [
          ply({ important: true }),
          ply({
            source: { kind: 'style-attribute', sheet: '', at: null, selector: '', isVeneer: false },
            specificity: null,
            under: { criterion: 'importance', text: 'not !important' },
          }),
          ply({
            source: { kind: 'browser', sheet: 'browser default', at: null, selector: 'a', isVeneer: false },
            under: { criterion: 'origin', text: 'lower origin' },
          }),
        ],
      }),
    ).toEqual([
      'red !important a.css 12 0·1·0',
      'red its style attribute · not !important –',
      'red browser default · lower origin 0·1·0',
    ]);
  });

  it('tells of inheritance, initial values and what was thrown away', async () => {
    expect((await text({ inheritedFrom: { element: 1, label: 'div.card' }, plies: [ply({})] }))[0]).toBe(
      'Inherited from div.card, where these compete.',
    );
    TestBed.resetTestingModule();
    expect(
      await text({
        isInitial: true,
        resolved: 'auto',
        discarded: [{ declaration: 'color: rde', source: ply({}).source, reason: 'no colour' }],
      }),
    ).toEqual(['auto Nothing declares it: the initial value.', 'color: rde thrown away: no colour']);
  });
});
