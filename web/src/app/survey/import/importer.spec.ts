import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ApiProblem } from '../../shared/api/api-problem';
import { Importer, type ImportEvent } from './importer';

class FakeSource {
  static last: FakeSource;
  static readonly CLOSED = 2;
  readonly listeners = new Map<string, (event: MessageEvent<string>) => void>();
  onerror: () => void = () => undefined;
  readyState = 1;
  isClosed = false;

  constructor(readonly url: string) {
    FakeSource.last = this;
  }

  addEventListener(type: string, listener: (event: MessageEvent<string>) => void): void {
    this.listeners.set(type, listener);
  }

  send(type: string, data: object): void {
    this.listeners.get(type)?.(new MessageEvent(type, { data: JSON.stringify(data) }));
  }

  close(): void {
    this.isClosed = true;
  }
}

describe('Importer', () => {
  let http: HttpTestingController;
  let importer: Importer;
  const original = window.EventSource;
  beforeEach(() => {
    (window as { EventSource: unknown }).EventSource = FakeSource;
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideHttpClient(), provideHttpClientTesting()],
    });
    http = TestBed.inject(HttpTestingController);
    importer = TestBed.inject(Importer);
  });
  afterEach(() => {
    (window as { EventSource: unknown }).EventSource = original;
  });

  const wish = { kind: 'files', siteId: null, name: '' } as const;

  it('sends wish and files under their paths, then tells how it goes until it ends', () => {
    const events: ImportEvent[] = [];
    let isDone = false;
    importer
      .run(wish, [{ path: 'site/index.html', file: new Blob(['<p>']) }])
      .subscribe({ next: (event) => events.push(event), complete: () => (isDone = true) });
    const request = http.expectOne('/api/imports');
    const body = request.request.body as FormData;
    expect(JSON.parse(body.get('wish') as string)).toEqual(wish);
    expect((body.get('files') as File).name).toBe('site/index.html');
    request.flush({ id: 4 });
    expect(FakeSource.last.url).toBe('/api/imports/4/events');
    FakeSource.last.send('progress', { stage: 'Unpacking', done: 1, total: 2 });
    FakeSource.last.send('end', { ok: false, problem: { title: 'No' } });
    expect(events.map(({ kind }) => kind)).toEqual(['started', 'progress', 'end']);
    expect([isDone, FakeSource.last.isClosed]).toEqual([true, true]);
  });

  it('fails with what the server said', () => {
    let problem: ApiProblem | null = null;
    importer.run(wish, []).subscribe({ error: (error: ApiProblem) => (problem = error) });
    http
      .expectOne('/api/imports')
      .flush(
        { title: 'Not brought in', detail: 'A file is larger than 50 MB', status: 413 },
        { status: 413, statusText: 'Payload Too Large' },
      );
    expect((problem as ApiProblem | null)?.message).toBe('A file is larger than 50 MB');
  });

  it('gives up on a server that stays away', () => {
    let problem: ApiProblem | null = null;
    importer.run(wish, []).subscribe({ error: (error: ApiProblem) => (problem = error) });
    http.expectOne('/api/imports').flush({ id: 4 });
    for (let i = 0; i < 4; i += 1) FakeSource.last.onerror();
    expect((problem as ApiProblem | null)?.isLost).toBe(true);
    expect(FakeSource.last.isClosed).toBe(true);
  });
});
