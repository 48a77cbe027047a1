import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { STEP_FAILED, type SightDocument } from '@upper-veneer/contract';
import { plainStep } from './plain-step';
import { VisitSession } from './visit-session';

const sight = (picture: string): SightDocument => ({
  picture,
  width: 1280,
  height: 800,
  address: 'http://a.test/',
  title: 'Gear: Osier & Reed',
  elements: [],
  notes: [],
});

describe('a visit as it is being planned', () => {
  let http: HttpTestingController;
  let session: VisitSession;
  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideHttpClient(), provideHttpClientTesting(), VisitSession],
    });
    http = TestBed.inject(HttpTestingController);
    session = TestBed.inject(VisitSession);
    spyOn(window, 'fetch').and.resolveTo(new Response(null, { status: 204 }));
    session.begin({ address: 'http://a.test/', width: 1280, keep: '', steps: [] });
  });
  const answer = (picture: string): void =>
    http.expectOne(({ url }) => url.startsWith('/api/sights/')).flush(sight(picture));
  const refuse = (type: string): void =>
    http
      .expectOne(({ url }) => url.endsWith('/steps'))
      .flush(
        { type, title: 'Not done', status: 422, detail: 'Nothing of the kind shows' },
        { status: 422, statusText: 'x' },
      );

  it('has a step once it is done, with the picture after it', () => {
    answer('0');
    session.add(plainStep('press', { words: 'Basket' }));
    expect([session.plan().steps.length, session.doing()]).toEqual([0, 'Press “Basket”']);
    answer('1');
    expect([session.plan().steps.length, session.doing(), session.pictures()]).toEqual([1, '', ['0', '1']]);
    expect(session.title()).toBe('Gear');
  });

  it('is as it was where a step finds nothing, and says so', () => {
    answer('0');
    session.add(plainStep('press', { words: 'Basket' }));
    refuse(STEP_FAILED);
    expect([session.plan().steps.length, session.sight()?.picture]).toEqual([0, '0']);
    expect(session.problem()?.message).toContain('Nothing of the kind');
  });

  it('shows no picture where the page itself is gone', () => {
    answer('0');
    session.add(plainStep('press', { words: 'Basket' }));
    refuse('about:blank');
    expect([session.plan().steps.length, session.sight()]).toEqual([0, null]);
  });

  it('is led through its steps again, each with its picture, after one is removed or put back', () => {
    answer('0');
    for (const words of ['A', 'B', 'C']) {
      session.add(plainStep('press', { words }));
      answer(words);
    }
    session.remove(1);
    answer('0 again');
    answer('A again');
    answer('C again');
    expect([session.plan().steps.map(({ words }) => words), session.pictures()]).toEqual([
      ['A', 'C'],
      ['0 again', 'A again', 'C again'],
    ]);
    session.undo();
    for (const picture of ['0', 'A', 'B', 'C']) answer(picture);
    expect(session.plan().steps.map(({ words }) => words)).toEqual(['A', 'B', 'C']);
    http.verify();
  });

  it('is not opened again for a name that is taken back', () => {
    answer('0');
    session.keep(-1, 'Gear for the river');
    session.undo();
    expect(session.plan().keep).toBe('');
    http.verify();
  });

  it('gives up what is under way, and closes the page', () => {
    session.stop();
    expect([session.doing(), session.sight()]).toEqual(['', null]);
    expect(window.fetch).toHaveBeenCalledWith(
      jasmine.stringMatching(/^\/api\/sights\//),
      jasmine.objectContaining({ method: 'DELETE' }),
    );
  });
});
