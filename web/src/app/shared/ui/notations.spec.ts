import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Notations } from './notations';

describe('Notations', () => {
  it('gives four notations that the browser reads as one colour, and copies the one pressed', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Notations);
    fixture.componentRef.setInput('css', '#b4582a');
    await fixture.whenStable();
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    expect(buttons.map((button) => button.textContent)).toEqual([
      '#b4582a',
      'rgb(180 88 42)',
      jasmine.stringMatching(/^hsl/) as unknown as string,
      jasmine.stringMatching(/^oklch/) as unknown as string,
    ]);
    const context = new OffscreenCanvas(1, 1).getContext('2d');
    for (const { textContent } of buttons) {
      if (!context) throw new Error('no context');
      context.fillStyle = textContent ?? '';
      context.fillRect(0, 0, 1, 1);
      context
        .getImageData(0, 0, 1, 1)
        .data.slice(0, 3)
        .forEach((value, i) =>
          expect(Math.abs(value - [180, 88, 42][i]))
            .withContext(textContent ?? '')
            .toBeLessThanOrEqual(1),
        );
    }
    const copied: string[] = [];
    spyOn(navigator.clipboard, 'writeText').and.callFake((text) => Promise.resolve(void copied.push(text)));
    buttons[1].click();
    await fixture.whenStable();
    expect(copied).toEqual(['rgb(180 88 42)']);
  });
});
