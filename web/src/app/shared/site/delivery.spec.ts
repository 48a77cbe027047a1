import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MessageService } from 'primeng/api';
import { Observable, Subject, of } from 'rxjs';
import { SiteApi } from '../api/site-api';
import { Delivery } from './delivery';
import { DraftEdits } from './draft-edits';
import { SiteStore } from './site-store';

describe('Delivery', () => {
  const tidied = new Subject<{ done: number; total: number }>();
  const store = {
    draft: signal({ publishedRevision: 4, revisions: [{ number: 4 }] }),
    site: signal({ id: 3, hostUrl: 'http://host.test/' }),
    saveRevision: (): Observable<unknown> => of({}),
    publish: (): Observable<unknown> => of({}),
  };
  let delivery: Delivery;
  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        MessageService,
        { provide: SiteApi, useValue: { tidied: () => tidied } },
        { provide: SiteStore, useValue: store },
        { provide: DraftEdits, useValue: store },
      ],
    });
    delivery = TestBed.inject(Delivery);
  });

  it('says how far it is, and that it is done', async () => {
    const answer = new Subject<unknown>();
    store.publish = (): Observable<unknown> => answer;
    const done = delivery.begin('publish', 'note');
    expect(delivery.words()).toBe('Publishing…');
    tidied.next({ done: 2, total: 8 });
    expect([delivery.words(), delivery.share()]).toEqual(['Publishing: tidying the sheet, 3 of 8', 0.25]);
    expect(await delivery.begin('save', ''))
      .withContext('while one is under way')
      .toBe(false);
    answer.next({});
    answer.complete();
    expect([await done, delivery.act()]).toEqual([true, null]);
  });

  it('is called off, and nobody listens to the answer any more', async () => {
    let isHeard = true;
    store.saveRevision = (): Observable<unknown> => new Observable(() => () => (isHeard = false));
    const done = delivery.begin('save', '');
    delivery.cancel();
    expect([await done, isHeard, delivery.words()]).toEqual([false, false, '']);
  });

  it('ends where it is refused', async () => {
    store.saveRevision = (): Observable<unknown> => new Observable((subscriber) => subscriber.complete());
    expect(await delivery.begin('save', '')).toBe(false);
    expect(delivery.act()).toBe(null);
  });
});
