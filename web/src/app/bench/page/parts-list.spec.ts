import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { PartsList } from './parts-list';

describe('PartsList', () => {
  it('lists the parts of the page with their progress, and chooses their outermost element', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(PartsList);
    fixture.componentRef.setInput('parts', [
      { id: 1, name: 'Header', kind: 'theme', openers: [] },
      { id: 2, name: 'Elsewhere', kind: 'theme', openers: [] },
      { id: 3, name: 'Form', kind: 'widget', openers: [{}] },
    ]);
    fixture.componentRef.setInput('progress', [
      { partId: 1, places: 4, matched: 1, elements: [10], reachability: 'in page', isHidden: false },
      { partId: 3, places: 0, matched: 0, elements: [31, 40], reachability: 'in page', isHidden: true },
    ]);
    fixture.componentRef.setInput('current', 3);
    const chosen: number[] = [];
    fixture.componentInstance.chosen.subscribe((number) => chosen.push(number));
    await fixture.whenStable();
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    const parts = buttons.filter((button) => button.classList.contains('part'));
    expect(parts.map((button) => button.querySelector('.head')?.textContent)).toEqual(['Header1/4', 'Form0/0']);
    expect(parts[0].querySelector<HTMLElement>('.uv-grain')?.style.width).toBe('25%');
    expect(parts[1].getAttribute('aria-current')).toBe('true');
    parts[1].click();
    expect(chosen).toEqual([31]);
    expect(parts.map((part) => part.querySelector('.kind')?.textContent)).toEqual(['theme', 'widget, hidden']);
  });

  it('opens a hidden part, and says which parts CSS reaches in part or not at all', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(PartsList);
    fixture.componentRef.setInput('parts', [
      { id: 1, name: 'Drawer', kind: 'pop-up', openers: [{}] },
      { id: 2, name: 'Chat', kind: 'framed', openers: [] },
      { id: 3, name: 'Level', kind: 'shadow', openers: [] },
    ]);
    const row = { places: 2, matched: 0, isHidden: false, elements: [1] };
    fixture.componentRef.setInput('progress', [
      { ...row, partId: 1, reachability: 'in page', isHidden: true },
      { ...row, partId: 2, reachability: 'framed' },
      { ...row, partId: 3, reachability: 'shadow' },
    ]);
    const toggled: number[] = [];
    fixture.componentInstance.toggled.subscribe((id) => toggled.push(id));
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    const open = [...host.querySelectorAll<HTMLButtonElement>('button.open')];
    expect(open.map((button) => [button.textContent, button.getAttribute('aria-pressed')])).toEqual([
      ['Open', 'false'],
    ]);
    // What CSS does not reach has settings.
    expect(host.querySelector('a.open')?.getAttribute('href')).toBe('/match?scope=parts-2');
    open[0].click();
    expect(toggled).toEqual([1]);
    expect([...host.querySelectorAll('.kind')].map((kind) => kind.textContent)).toEqual([
      'pop-up, hidden',
      'framed: settings only',
      'shadow root',
    ]);
    fixture.componentRef.setInput('opened', [1]);
    await fixture.whenStable();
    expect(host.querySelector('.open')?.textContent).toBe('Close');
  });
  it('counts the elements that what is on every page takes, not those of a scrollbar or of selected text', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(PartsList);
    for (const name of ['parts', 'progress']) fixture.componentRef.setInput(name, []);
    fixture.componentRef.setInput('current', null);
    // Named as another language may.
    const entry = { elements: 7, pages: 7, pseudo: '', words: '' };
    fixture.componentRef.setInput('siteWide', [
      { ...entry, name: 'Verweise im Text', row: 'text', elements: 33 },
      { ...entry, name: 'Auswahl', row: 'fill', pseudo: 'selection' },
      { ...entry, name: 'Rollbalken', row: 'thumb' },
      { ...entry, name: 'Fokusring', row: 'ring', elements: 169 },
    ]);
    await fixture.whenStable();
    const heads = [...(fixture.nativeElement as HTMLElement).querySelectorAll('.head')];
    expect(heads.map((head) => head.textContent)).toEqual([
      'Verweise im Text33',
      'Auswahl',
      'Rollbalken',
      'Fokusring169',
    ]);
  });
});
