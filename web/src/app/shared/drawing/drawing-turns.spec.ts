import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { DrawingTurns } from './drawing-turns';
import { InTurn } from './in-turn';

@Component({
  imports: [InTurn],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (isShown()) {
      <i *uvInTurn>{{ name() }}</i>
      <b *uvInTurn></b>
      <u *uvInTurn></u>
    }
  `,
})
class Pieces {
  readonly isShown = signal(true);
  readonly name = signal('first');
}

describe('what is drawn in turn', () => {
  let fixture: ComponentFixture<Pieces>;
  let turns: DrawingTurns;
  const tags = (): string =>
    [...(fixture.nativeElement as HTMLElement).children].map(({ localName }) => localName).join('');
  /** What stood there each time that something came or went, one task of the browser after another. */
  const watched = async (): Promise<string[]> => {
    const seen = [tags()];
    const watcher = new MutationObserver(() => seen.push(tags()));
    watcher.observe(fixture.nativeElement as HTMLElement, { childList: true });
    do await new Promise((done) => setTimeout(done, 10));
    while (turns.isDrawing());
    await fixture.whenStable();
    watcher.disconnect();
    return seen;
  };
  beforeEach(() => {
    fixture = TestBed.createComponent(Pieces);
    fixture.autoDetectChanges();
    turns = TestBed.inject(DrawingTurns);
  });

  // Source: a MutationObserver is told once a task of what changed in it (DOM Standard, "queue a mutation observer microtask").
  it('comes after what asks for it, small pieces together', async () => {
    await fixture.whenStable();
    expect(await watched()).toEqual(['', 'ibu']);
    expect(turns.isDrawing()).toBeFalse();
  });

  // Source: microtasks run when the task they were asked for in has ended (HTML Standard, "perform a microtask checkpoint").
  it('leaves the task after a large piece, and keeps the order', async () => {
    await watched();
    const seen: { readonly piece: number; readonly task: number }[] = [];
    let task = 0;
    for (const piece of [1, 2, 3, 4])
      turns.wait(() => {
        seen.push({ piece, task });
        queueMicrotask(() => (task = piece));
        const begun = performance.now();
        while (piece < 3 && performance.now() - begun < 20);
      });
    for (let tries = 0; tries < 100 && seen.length < 4; tries += 1) await new Promise((done) => setTimeout(done, 10));
    expect(seen).toEqual([
      { piece: 1, task: 0 },
      { piece: 2, task: 1 },
      { piece: 3, task: 2 },
      { piece: 4, task: 2 },
    ]);
  });

  // Source: HTML Standard, "page visibility"; browsers slow the timers of a page that is hidden down (common practice).
  it('comes at once in a window that nobody looks at', async () => {
    spyOnProperty(document, 'hidden').and.returnValue(true);
    await fixture.whenStable();
    expect(await watched()).toEqual(['', 'ibu']);
  });

  it('follows what it is bound to once it is there', async () => {
    await watched();
    fixture.componentInstance.name.set('another');
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).querySelector('i')?.textContent).toBe('another');
  });

  it('gives its place up where the view goes before its turn', async () => {
    await fixture.whenStable();
    fixture.componentInstance.isShown.set(false);
    await watched();
    expect(tags()).toBe('');
    expect(turns.isDrawing()).toBeFalse();
  });

  it('goes on with the next where one cannot be drawn', async () => {
    await watched();
    const drawn: string[] = [];
    const errors: unknown[] = [];
    const onError = (event: ErrorEvent): void => {
      errors.push(event.error);
      event.preventDefault();
    };
    const jasmineHandler = window.onerror;
    window.onerror = null;
    window.addEventListener('error', onError);
    turns.wait(() => {
      throw new Error('cannot');
    });
    turns.wait(() => drawn.push('next'));
    for (let tries = 0; tries < 100 && drawn.length === 0; tries += 1)
      await new Promise((done) => setTimeout(done, 10));
    window.removeEventListener('error', onError);
    window.onerror = jasmineHandler;
    expect(drawn).toEqual(['next']);
    expect(errors.map(String)).toEqual(['Error: cannot']);
  });
});
