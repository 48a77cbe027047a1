import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { inSlices } from './in-slices';

@Component({
  selector: 'uv-sliced',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '{{ shown().length }}',
})
class Sliced {
  readonly all = signal<readonly number[]>(Array.from({ length: 25 }, (_, i) => i));
  readonly shown = inSlices(this.all, 10);
}

describe('a list drawn in slices', () => {
  const turn = (): Promise<unknown> => new Promise((done) => setTimeout(done, 20));

  it('begins with its first, comes to all of it, and draws what follows at once as far as it was drawn', async () => {
    const fixture = TestBed.createComponent(Sliced);
    fixture.detectChanges();
    expect(fixture.componentInstance.shown().length).toBe(10);
    for (let i = 0; i < 4; i += 1) {
      await turn();
      fixture.detectChanges();
    }
    expect(fixture.componentInstance.shown()).toEqual(fixture.componentInstance.all());
    fixture.componentInstance.all.set([9, 8]);
    expect(fixture.componentInstance.shown()).toEqual([9, 8]);
    fixture.componentInstance.all.set(Array.from({ length: 22 }, (_, i) => i));
    expect(fixture.componentInstance.shown().length).toBe(22);
  });
});
