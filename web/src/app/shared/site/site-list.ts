import { Injectable, inject, signal } from '@angular/core';
import type { SiteSummary } from '@upper-veneer/contract';
import { type Observable, tap } from 'rxjs';
import { SiteApi } from '../api/site-api';

/** The sites there are. */
@Injectable({ providedIn: 'root' })
export class SiteList {
  readonly #api = inject(SiteApi);
  readonly sites = signal<readonly SiteSummary[]>([]);

  /** Reads it from the server. */
  read(): Observable<readonly SiteSummary[]> {
    return this.#api.sites().pipe(tap((sites) => this.sites.set(sites)));
  }

  /** Reads it again; what was there stays where the server does not answer. */
  refresh(): void {
    this.read().subscribe({ error: () => undefined });
  }
}
