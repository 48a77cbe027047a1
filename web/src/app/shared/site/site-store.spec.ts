import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { DraftDocument, SiteDocument } from '@upper-veneer/contract';
import { MessageService } from 'primeng/api';
import { NEVER, Subject, of, throwError } from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import { Engine } from '../engine/engine';
import { DraftEdits } from './draft-edits';
import { SiteStore } from './site-store';

const DRAFT: DraftDocument = {
  overrides: [],
  ownCss: [],
  settings: [],
  requests: [],
  leftDrafts: [],
  swatches: [],
  roles: [],
  second: null,
  shape: {},
  former: [],
  live: null,
  exceptions: [],
  plans: [],
  structure: 1,
  undo: null,
  redo: null,
  version: 1,
  revisions: [],
  equalsRevision: null,
  publishedRevision: null,
  formerCaptures: 0,
  looked: [],
};
const SITE = {
  id: 5,
  name: 'Small',
  prefix: 'brand',
  asValues: false,
  names: {},
  hoverOnly: false,
  flatFor: '',
  isByLetters: false,
  veneerPlace: 'head-end',
  pages: [],
  stylesheets: {},
  parts: [],
  pictures: [],
  documents: [],
  leftOut: [],
  visits: [],
  draft: DRAFT,
  hostUrl: 'http://host.test/',
} as SiteDocument;

describe('SiteStore', () => {
  let api: jasmine.SpyObj<SiteApi>;
  let dressed: number;
  let remote: Record<string, () => Promise<unknown>>;
  let store: SiteStore;
  let edits: DraftEdits;
  let told: string[];
  const settled = (): Promise<void> => new Promise((done) => setTimeout(done, 5));

  beforeEach(() => {
    api = jasmine.createSpyObj<SiteApi>('SiteApi', [
      'sites',
      'site',
      'draft',
      'change',
      'undo',
      'redo',
      'saveRevision',
      'publish',
      'draftVersions',
    ]);
    api.sites.and.returnValue(of([{ id: 5, name: 'Small', pages: 1 }]));
    api.site.and.returnValue(of(SITE));
    api.draftVersions.and.returnValue(NEVER);
    dressed = 0;
    told = [];
    remote = {
      open: () => Promise.resolve(),
      dress: () => Promise.resolve({ css: `/* ${(dressed += 1)} */`, frameCss: '' }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        MessageService,
        { provide: SiteApi, useValue: api },
        {
          provide: Engine,
          useValue: { remote, read: () => Promise.resolve(), tell: (error: Error) => told.push(error.message) },
        },
      ],
    });
    store = TestBed.inject(SiteStore);
    edits = TestBed.inject(DraftEdits);
  });

  async function open(): Promise<void> {
    store.open();
    await settled();
  }

  it('opens the first site and says how the draft stands', async () => {
    expect(store.state().status).toBe('opening');
    await open();
    expect(store.site()?.name).toBe('Small');
    expect(store.standing()).toBe('Nothing overridden yet');
  });

  it('tells an empty database and a lost server apart', async () => {
    api.sites.and.returnValue(of([]));
    await open();
    expect(store.state().status).toBe('none');
    api.sites.and.returnValue(throwError(() => new ApiProblem('gone', '', [], true)));
    await open();
    expect(store.state().status).toBe('failed');
  });

  it('shows a change only once it is stored and compiled', async () => {
    await open();
    const answer = new Subject<DraftDocument>();
    api.change.and.returnValue(answer);
    edits.change({ label: 'x', put: [], drop: [] }).subscribe();
    expect(store.isSaving()).toBe(true);
    expect(store.draft()?.version).toBe(1);
    answer.next({ ...DRAFT, version: 2 });
    answer.complete();
    await settled();
    expect([store.draft()?.version, store.veneer().css, store.isSaving()]).toEqual([2, '/* 2 */', false]);
  });

  it('keeps what it shows when a change is refused, and says why', async () => {
    await open();
    const add = spyOn(TestBed.inject(MessageService), 'add');
    api.change.and.returnValue(throwError(() => new ApiProblem('Not stored', 'selector is broken')));
    edits.change({ label: 'x', put: [], drop: [] }).subscribe();
    await settled();
    expect(store.draft()?.version).toBe(1);
    expect(add).toHaveBeenCalledOnceWith(
      jasmine.objectContaining({ summary: 'Not stored', detail: 'selector is broken' }),
    );
  });

  it('saves a revision before it publishes a draft that equals none', async () => {
    await open();
    api.saveRevision.and.returnValue(
      of({ ...DRAFT, version: 1, revisions: [{ number: 3, note: '', savedAt: '', rules: 1 }], equalsRevision: 3 }),
    );
    api.publish.and.returnValue(
      of({
        ...DRAFT,
        version: 1,
        revisions: [{ number: 3, note: '', savedAt: '', rules: 1 }],
        equalsRevision: 3,
        publishedRevision: 3,
      }),
    );
    edits.publish('note').subscribe();
    await settled();
    expect(api.saveRevision).toHaveBeenCalledOnceWith(5, 'note');
    expect(api.publish).toHaveBeenCalledOnceWith(5, 3);
    expect(store.standing()).toBe('Revision 3 is published');
    edits.publish('again').subscribe();
    await settled();
    expect(api.saveRevision).toHaveBeenCalledTimes(1);
  });

  it('follows changes made in another tab', async () => {
    const versions = new Subject<number>();
    api.draftVersions.and.returnValue(versions);
    api.draft.and.returnValue(of({ ...DRAFT, version: 9, undo: 'theirs' }));
    await open();
    versions.next(9);
    await settled();
    expect(store.draft()?.undo).toBe('theirs');
  });

  it('goes on following after a draft that could not be compiled, and tells why it could not', async () => {
    const versions = new Subject<number>();
    api.draftVersions.and.returnValue(versions);
    api.draft.and.returnValue(of({ ...DRAFT, version: 9, undo: 'theirs' }));
    await open();
    const { dress } = remote;
    remote['dress'] = () => Promise.reject(new Error('no such page'));
    versions.next(9);
    await settled();
    expect([store.draft()?.undo, told]).toEqual([null, ['no such page']]);
    remote['dress'] = dress;
    versions.next(10);
    await settled();
    expect(store.draft()?.undo).toBe('theirs');
  });

  it('does not tell a failure of the worker as a lost server', async () => {
    await open();
    const add = spyOn(TestBed.inject(MessageService), 'add');
    remote['dress'] = () => Promise.reject(new Error('no such page'));
    api.change.and.returnValue(of({ ...DRAFT, version: 2 }));
    edits.change({ label: 'x', put: [], drop: [] }).subscribe();
    await settled();
    expect(add).toHaveBeenCalledOnceWith(
      jasmine.objectContaining({
        summary: 'Something could not be worked out',
        detail: jasmine.stringContaining('no such page') as unknown as string,
      }),
    );
  });
});
