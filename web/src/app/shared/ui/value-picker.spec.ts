import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { OverrideValue, Palette } from '@upper-veneer/core';
import { providePrimeNG } from 'primeng/config';
import { ValuePicker } from './value-picker';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'River', css: '#0f4a48' },
  ],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};

describe('ValuePicker', () => {
  async function create(current: OverrideValue | null = null) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), providePrimeNG({})] });
    const fixture = TestBed.createComponent(ValuePicker);
    fixture.componentRef.setInput('palette', PALETTE);
    fixture.componentRef.setInput('current', current);
    const picked: OverrideValue[] = [];
    fixture.componentInstance.picked.subscribe((value) => picked.push(value));
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    const type = async (text: string): Promise<void> => {
      const input = host.querySelector<HTMLInputElement>('input.uv-mono');
      if (!input) throw new Error('No field');
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    return {
      fixture,
      host,
      picked,
      type,
      submit: () => host.querySelector('form')?.dispatchEvent(new Event('submit')),
    };
  }

  it('gives swatches and their shades', async () => {
    const { host, picked, fixture } = await create();
    host.querySelector<HTMLButtonElement>('[aria-label="River"]')?.click();
    await fixture.whenStable();
    host.querySelector<HTMLButtonElement>('[aria-label="River, 12 darker"]')?.click();
    expect(picked).toEqual([
      { kind: 'swatch', swatchId: 2, shade: 0 },
      { kind: 'swatch', swatchId: 2, shade: -12 },
    ]);
  });

  it('shows which value the cell has', async () => {
    const { host } = await create({ kind: 'role', role: 'accent', shade: -12 });
    expect(host.querySelector('.ladder [aria-pressed="true"]')?.getAttribute('aria-label')).toBe('Accent, 12 darker');
    expect(host.querySelector('.swatch[aria-pressed="true"]')).toBeNull();
  });

  it('takes a typed colour on Enter when it reads one way', async () => {
    const { picked, type, submit } = await create();
    await type('40 90 160');
    submit();
    expect(picked).toEqual([{ kind: 'literal', css: '#285aa0' }]);
  });

  it('asks where it reads two ways', async () => {
    const { host, picked, type, submit, fixture } = await create();
    await type('32 47 61');
    submit();
    expect(picked).toEqual([]);
    const readings = [...host.querySelectorAll<HTMLButtonElement>('.reading')];
    expect(readings.map((reading) => reading.querySelector('.uv-mono')?.textContent)).toEqual(['#202f3d', '#324761']);
    readings[1].click();
    await fixture.whenStable();
    expect(picked).toEqual([{ kind: 'literal', css: '#324761' }]);
    expect(host.querySelector('.readings')).toBeNull();
  });

  it('says what is no colour, in its place', async () => {
    const { host, picked, fixture, type, submit } = await create();
    await type('blurple');
    expect(host.querySelector('.error')).toBeNull();
    submit();
    await fixture.whenStable();
    expect(host.querySelector('.error')?.textContent).toContain('"blurple" is no colour');
    expect(host.querySelector('input.uv-mono')?.getAttribute('aria-invalid')).toBe('true');
    await type('x'.repeat(300));
    submit();
    await fixture.whenStable();
    expect(host.querySelector('.error')?.textContent).toContain('200 characters');
    expect(picked).toEqual([]);
  });
});
