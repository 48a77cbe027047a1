import { Injectable } from '@angular/core';
import { Observable, filter, map, share } from 'rxjs';
import { openEvents, type LiveEvent } from './open-events';

/** What the server says by itself, over one connection for all tabs of a browser: it allows six to a server. */
@Injectable({ providedIn: 'root' })
export class LiveEvents {
  readonly #all = this.open().pipe(share());

  of<K extends LiveEvent['kind']>(kind: K, siteId: number): Observable<Extract<LiveEvent, { kind: K }>> {
    return this.#all.pipe(
      filter((event) => event.kind === kind && event.siteId === siteId),
      map((event) => event as Extract<LiveEvent, { kind: K }>),
    );
  }

  /** Goes on trying when the server is away. Browsers without shared workers open a connection a tab. */
  protected open(): Observable<LiveEvent> {
    return new Observable((subscriber) => {
      if (typeof SharedWorker === 'undefined') return openEvents((event) => subscriber.next(event));
      const { port } = new SharedWorker(new URL('./live-events.worker', import.meta.url), {
        type: 'module',
        name: 'upper-veneer-events',
      });
      const leave = (): void => port.postMessage('leave');
      const come = ({ persisted }: PageTransitionEvent): void => {
        // Kept by the browser while another page was shown, and told to leave then.
        if (persisted) port.postMessage('come');
      };
      port.onmessage = ({ data }: MessageEvent<LiveEvent>) => subscriber.next(data);
      window.addEventListener('pagehide', leave);
      window.addEventListener('pageshow', come);
      return () => {
        window.removeEventListener('pagehide', leave);
        window.removeEventListener('pageshow', come);
        leave();
        port.close();
      };
    });
  }
}
