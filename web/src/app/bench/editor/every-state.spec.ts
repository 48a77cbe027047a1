import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Inspection, Repair } from '@upper-veneer/core';
import { Engine } from '../../shared/engine/engine';
import { BenchActs } from '../store/bench-acts';
import { BenchSelection } from '../store/bench-selection';
import { EveryState } from './every-state';

describe('EveryState', () => {
  const bench = {
    cell: signal({ row: 'fill', state: 'rest' }),
    target: signal({ pageId: 1, element: 5, pseudo: '' }),
    width: signal(1280),
  };
  const done: Spoken<Repair>[] = [];
  const proposals = [
    { state: 'hover', words: 'Hover fill: Willow, 12 darker', wishes: [{ state: 'hover' }, { state: 'hover' }] },
    { state: 'focus', words: 'Focus fill: Willow, 6 darker', wishes: [{ state: 'focus' }] },
  ];

  async function open(found: readonly object[]) {
    done.length = 0;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: BenchSelection, useValue: bench },
        { provide: BenchActs, useValue: { scope: () => ({}), repair: (repair: Spoken<Repair>) => done.push(repair) } },
        { provide: Engine, useValue: { remote: { proposeRow: () => Promise.resolve(found) } } },
      ],
    });
    const fixture = TestBed.createComponent(EveryState);
    fixture.componentRef.setInput('inspection', { pageId: 1, element: 5, pseudo: '' } as Spoken<Inspection>);
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    host.querySelector('button')?.click();
    await fixture.whenStable();
    return { fixture, host };
  }

  it('says what each state would be, and writes only those that stay ticked', async () => {
    const { fixture, host } = await open(proposals);
    expect([...host.querySelectorAll('label')].map(({ textContent }) => textContent?.trim())).toEqual([
      'Hover fill: Willow, 12 darker, and its text kept readable',
      'Focus fill: Willow, 6 darker',
    ]);
    expect(done).toEqual([]);
    host.querySelectorAll<HTMLInputElement>('input')[1].click();
    await fixture.whenStable();
    const act = host.querySelector<HTMLButtonElement>('.do');
    expect(act?.textContent?.trim()).toBe('Do 1');
    act?.click();
    expect(done.map(({ label, wishes }) => [label, wishes.length])).toEqual([['Fill in every state', 2]]);
  });

  it('says where there is nothing to do, and shuts itself where another row is chosen', async () => {
    const { fixture, host } = await open([]);
    expect(host.querySelector('.list')?.textContent).toContain('follows from rest already');
    bench.cell.set({ row: 'text', state: 'rest' });
    await fixture.whenStable();
    expect(host.querySelector('.list')).toBeNull();
    bench.cell.set({ row: 'fill', state: 'rest' });
  });
});
