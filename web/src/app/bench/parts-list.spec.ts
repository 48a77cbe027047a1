import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { PartsList } from './parts-list';

describe('PartsList', () => {
  it('lists the parts of the page with their progress, and chooses their outermost element', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PartsList);
    fixture.componentRef.setInput('parts', [{ id: 1, name: 'Header', kind: 'theme' }, { id: 2, name: 'Elsewhere', kind: 'theme' }, { id: 3, name: 'Form', kind: 'widget' }]);
    fixture.componentRef.setInput('progress', [{ partId: 1, places: 4, matched: 1, elements: [10] }, { partId: 3, places: 0, matched: 0, elements: [31, 40] }]);
    fixture.componentRef.setInput('current', 3);
    const chosen: number[] = [];
    fixture.componentInstance.chosen.subscribe((number) => chosen.push(number));
    await fixture.whenStable();
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    expect(buttons.map((button) => button.querySelector('.head')?.textContent)).toEqual(['Header1/4', 'Form0/0']);
    expect(buttons[0].querySelector<HTMLElement>('.uv-grain')?.style.width).toBe('25%');
    expect(buttons[1].getAttribute('aria-current')).toBe('true');
    buttons[1].click();
    expect(chosen).toEqual([31]);
  });
});
