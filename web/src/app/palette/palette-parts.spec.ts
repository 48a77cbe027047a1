import { provideZonelessChangeDetection, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { contrastRatio, colorOfCss, pairMatrix, paletteAsSeen, type Color, type Palette } from '@upper-veneer/core';
import { DrawingTurns } from '../shared/drawing/drawing-turns';
import { OtherEyes } from './other-eyes';
import { PairTable } from './pair-table';
import { ShadeLadder } from './shade-ladder';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Reed', css: '#6d8a35' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'on-accent', swatchId: 2, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
  ],
};

async function render<T>(type: Type<T>, inputs: Readonly<Record<string, unknown>>): Promise<HTMLElement> {
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
  const fixture = TestBed.createComponent(type);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  const turns = TestBed.inject(DrawingTurns);
  do {
    await fixture.whenStable();
    await new Promise((done) => setTimeout(done));
  } while (turns.isDrawing());
  return fixture.nativeElement as HTMLElement;
}

describe('ShadeLadder', () => {
  it('shows the steps from light to dark with their contrast against the partner role, rounded down', async () => {
    const host = await render(ShadeLadder, { swatch: PALETTE.swatches[0], palette: PALETTE });
    const steps = [...host.querySelectorAll('li')];
    expect(steps.length).toBe(10);
    expect(steps.map((step) => step.querySelectorAll('span')[2].textContent)).toEqual([
      '',
      '',
      '',
      '',
      'swatch',
      'hover',
      'pressed',
      '',
      '',
      '',
    ]);
    const ratios = steps.map((step) => Number(step.querySelectorAll('span')[1].textContent));
    expect([...ratios].sort((a, b) => a - b)).toEqual(ratios);
    const exact = contrastRatio(colorOfCss('#b4582a') as Color, colorOfCss('#fff') as Color);
    expect(ratios[4]).toBe(Math.floor(exact * 10) / 10);
    expect(host.querySelector('p')?.textContent).toContain('contrast with on accent');
  });

  it('meets white where no ground is filled', async () => {
    const host = await render(ShadeLadder, { swatch: PALETTE.swatches[2], palette: { ...PALETTE, roles: [] } });
    expect(host.querySelector('p')?.textContent).toContain('contrast with white');
  });
});

describe('PairTable', () => {
  it('draws each pair in its own colours', async () => {
    const host = await render(PairTable, { pairs: pairMatrix(PALETTE) });
    expect([...host.querySelectorAll('thead th')].map((cell) => cell.textContent)).toEqual(['ground', 'accent']);
    const sample = host.querySelector<HTMLElement>('tbody .sample');
    expect([sample?.style.color, sample?.style.background]).toEqual(['rgb(180, 88, 42)', 'rgb(255, 255, 255)']);
    expect(host.querySelector('tbody td')?.textContent).toContain('4.8');
    expect([...host.querySelectorAll('td')].some((cell) => cell.textContent?.includes('same'))).toBe(true);
  });

  it('says what is missing while no pair can meet', async () => {
    const host = await render(PairTable, { pairs: [] });
    expect(host.querySelector('table')).toBeNull();
    expect(host.textContent).toContain('Fill a role');
  });
});

describe('OtherEyes', () => {
  it('shows every way of seeing and names swatches that come together', async () => {
    const seen = paletteAsSeen(PALETTE);
    const host = await render(OtherEyes, { palette: PALETTE, seen });
    expect([...host.querySelectorAll('.row > span')].map((label) => label.textContent)).toEqual([
      'as it is',
      'protanopia',
      'deuteranopia',
      'tritanopia',
      'grey',
    ]);
    expect(host.querySelectorAll('i').length).toBe(15);
    expect(host.querySelector('p')?.textContent).toContain('Willow and Reed come within ΔE');
  });
});
