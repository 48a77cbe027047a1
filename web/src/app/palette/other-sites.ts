import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { proxy } from 'comlink';
import type { DraftDocument, SiteDocument, SiteSummary } from '@upper-veneer/contract';
import { rebranded, sheetOptionsOf, type Palette, type Rebranded } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { firstValueFrom } from 'rxjs';
import { ApiProblem } from '../shared/api/api-problem';
import { SiteApi } from '../shared/api/site-api';
import { startSideEngine, type SideEngine } from '../shared/engine/side-engine';
import { Messages } from '../shared/spoken/messages';
import { toRequest } from '../shared/site/palette-edits';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';

/** What a proof came to. */
interface Counts {
  readonly fails: number;
  readonly toLookAt: number;
}

/** A site that shares swatches with the open one. */
interface Sharing {
  readonly site: Other;
  readonly change: Rebranded;
  readonly before: Counts | null;
  readonly after: Counts | null;
  readonly standing: 'waits' | 'proving' | 'proved' | 'taken';
}

/** Another site, as it was when it was asked for last. */
interface Other {
  readonly id: number;
  readonly name: string;
  readonly draft: DraftDocument;
}

/** What is known of a site, and of which change: of another one it says nothing. */
type Told = Pick<Sharing, 'before' | 'after' | 'standing'> & { readonly of: string };

const WAITS = { before: null, after: null, standing: 'waits' } as const;

/** Which change it is: what was proved of another counts no more. */
function keyOf({ palette }: Rebranded): string {
  return JSON.stringify(palette);
}

/** Carries the palette's colours to other sites that share swatches with it by name, each with its proof before and after. */
@Component({
  selector: 'uv-other-sites',
  imports: [Button, Checkbox, ColorChip, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="uv-soft" i18n>Sites that have swatches of the same names can follow this palette. Each is proved before and after; each change is a step of undo there. Text over pictures is not read in these counts.</p>
    @if (!isRead()) { <p role="status" i18n>Reading the other sites…</p> }
    <ul>
      @for (own of sharing(); track own.site.id) {
        <li>
          <p-checkbox [binary]="true" [ngModel]="chosen().has(own.site.id)" (ngModelChange)="choose(own.site.id, $event)" [disabled]="own.change.changes.length === 0 || own.standing === 'taken'" [inputId]="'uv-site-' + own.site.id" />
          <div>
            <label [for]="'uv-site-' + own.site.id"><strong>{{ own.site.name }}</strong></label> <span class="uv-soft" i18n>{{ own.change.shared }} swatches shared, {{ own.change.changes.length }} of another colour</span>
            @for (swatch of own.change.changes; track swatch.name) {
              <p class="swatch"><uv-color-chip [color]="swatch.before" />
                <span class="uv-mono">{{ swatch.before }}</span>
                →
                <uv-color-chip [color]="swatch.after" />
                <span class="uv-mono">{{ swatch.after }}</span>
                {{ swatch.name }}</p>
            }
            <p role="status">{{ toldOf(own) }}</p>
          </div>
        </li>
      } @empty { @if (isRead()) { <li class="uv-soft" i18n>No other site has a swatch of a name that is used here.</li> } }
    </ul>
    <p class="acts">
      @if (isProving()) {
        <p-button label="Stop" i18n-label [outlined]="true" size="small" (onClick)="stop()" />
      } @else {
        <p-button label="Prove before and after" i18n-label [outlined]="true" size="small" [disabled]="chosen().size === 0" (onClick)="prove()" />
        <p-button [label]="wordsOf('palette.take-over-site-sites', { chosen: chosen().size })" size="small" [disabled]="!canTake()" (onClick)="take()" />
      }
    </p>
  `,
  styles: `
    :host { display: grid; gap: 10px; padding: 12px 16px; max-width: 720px; }
    ul { margin: 0; padding: 0; list-style: none; border-top: 1px solid var(--uv-line); }
    li { display: flex; gap: 10px; padding: 10px 0; border-bottom: 1px solid var(--uv-line); }
    li p { margin: 3px 0 0; }
    strong { margin-right: 6px; }
    .swatch { display: flex; flex-wrap: wrap; align-items: center; gap: 6px; font-size: 12.5px; }
    .acts { display: flex; gap: 8px; }
  `,
})
export class OtherSites {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly #messages = inject(Messages);
  protected readonly isRead = signal(false);
  protected readonly isProving = signal(false);
  protected readonly chosen = signal<ReadonlySet<number>>(new Set());
  readonly #sites = signal<readonly Other[]>([]);
  readonly #told = signal<ReadonlyMap<number, Spoken<Told>>>(new Map());
  #engine: SideEngine | null = null;
  #run = 0;

  protected readonly sharing = computed((): Sharing[] =>
    this.#sites().flatMap((site) => {
      const change = this.#changeOf(site.draft);
      const known = this.#told().get(site.id);
      const isOfIt = known?.standing === 'taken' || known?.of === keyOf(change);
      const { before, after, standing } = isOfIt && known ? known : WAITS;
      return change.shared === 0 ? [] : [{ site, change, before, after, standing }];
    }),
  );
  protected readonly canTake = computed(() => {
    const chosen = this.sharing().filter(({ site }) => this.chosen().has(site.id));
    return chosen.length > 0 && chosen.every(({ standing }) => standing === 'proved');
  });

  constructor() {
    void this.#read();
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected choose(id: number, isChosen: boolean): void {
    this.chosen.update((before) => {
      const next = new Set(before);
      if (isChosen) next.add(id);
      else next.delete(id);
      return next;
    });
  }

  protected stop(): void {
    this.#run += 1;
    this.#engine?.end();
    this.#engine = null;
    this.isProving.set(false);
    this.#told.update((told) => new Map([...told].filter(([, { standing }]) => standing !== 'proving')));
  }

  /** Proves each chosen site as it is, and with the colours it would have. */
  protected async prove(): Promise<void> {
    const run = (this.#run += 1);
    this.isProving.set(true);
    const engine = (this.#engine = startSideEngine());
    try {
      for (const id of this.chosen()) {
        const site = await firstValueFrom(this.#api.site(id));
        if (run !== this.#run) return;
        this.#take(id, site.draft);
        const change = this.#changeOf(site.draft);
        const of = keyOf(change);
        this.#tell(id, { of, before: null, after: null, standing: 'proving' });
        const before = await countsOf(engine, site, paletteOf(site.draft), true);
        if (run !== this.#run || !before) return;
        this.#tell(id, { of, before, after: null, standing: 'proving' });
        const after = await countsOf(engine, site, change.palette, false);
        if (run !== this.#run || !after) return;
        this.#tell(id, { of, before, after, standing: 'proved' });
      }
    } catch (error) {
      this.#messages.report(ApiProblem.from(error));
    } finally {
      if (run === this.#run) this.stop();
    }
  }

  /** Stores the colours on each chosen site, as one step of undo there. */
  protected async take(): Promise<void> {
    const from = this.#site.site()?.name ?? '';
    for (const { site, change, before, after } of this.sharing().filter((own) => this.chosen().has(own.site.id))) {
      try {
        const now = await firstValueFrom(this.#api.draft(site.id));
        this.#take(site.id, now);
        const of = keyOf(this.#changeOf(now));
        if (of !== keyOf(change)) {
          this.#messages.report({
            title: wordsOf('palette.changed-meanwhile', { name: site.name }),
            message: wordsOf('palette.its-palette-another-than'),
            isLost: false,
          });
          continue;
        }
        const request = toRequest(wordsOf('palette.colours', { from }), change.palette);
        this.#take(site.id, await firstValueFrom(this.#api.putPalette(site.id, request)));
        this.#tell(site.id, { of, before, after, standing: 'taken' });
        this.choose(site.id, false);
      } catch (error) {
        this.#messages.report(ApiProblem.from(error));
      }
    }
  }

  protected toldOf({ change, before, after, standing }: Sharing): string {
    if (standing === 'taken') return wordsOf('palette.taken-over-undo-site', { count: countWords(before, after) });
    if (change.changes.length === 0) return wordsOf('palette.has-these-colours-already');
    if (standing === 'proving') return before ? wordsOf('palette.proving-as-would-be') : wordsOf('palette.proving-as');
    return standing === 'proved' ? countWords(before, after) : wordsOf('palette.not-proved-yet');
  }

  #changeOf(draft: DraftDocument): Rebranded {
    return rebranded(paletteOf(draft), this.#site.palette());
  }

  /** Takes in a site's draft as it is now. */
  #take(id: number, draft: DraftDocument): void {
    this.#sites.update((sites) => sites.map((own) => (own.id === id ? { ...own, draft } : own)));
  }

  #tell(id: number, told: Spoken<Told>): void {
    this.#told.update((before) => new Map([...before, [id, told]]));
  }

  async #read(): Promise<void> {
    try {
      const all: readonly SiteSummary[] = await firstValueFrom(this.#api.sites());
      const others = all.filter(({ id }) => id !== this.#site.site()?.id);
      const read = async ({ id, name }: SiteSummary): Promise<Other> => ({
        id,
        name,
        draft: await firstValueFrom(this.#api.draft(id)),
      });
      this.#sites.set(await Promise.all(others.map(read)));
    } catch (error) {
      this.#messages.report(ApiProblem.from(error));
    } finally {
      this.isRead.set(true);
    }
  }
}

function paletteOf({ swatches, roles, second, shape, former }: DraftDocument): Palette {
  return { swatches, roles, second, shape, former };
}

/** What the proof of a site comes to under a palette; `null` when it was stopped. */
async function countsOf(
  { remote }: SideEngine,
  site: SiteDocument,
  palette: Palette,
  isFresh: boolean,
): Promise<Counts | null> {
  const { pages, stylesheets, parts, veneerPlace, draft } = site;
  if (isFresh) await remote.open({ pages, stylesheets, parts, veneerPlace, ...sheetOptionsOf(site) });
  await remote.dress({ overrides: draft.overrides, ownCss: draft.ownCss, exceptions: draft.exceptions, palette });
  const proof = await remote.prove(proxy(() => undefined));
  if (!proof) return null;
  const fails = proof.findings.filter(({ level }) => level === 'fails').length;
  return { fails, toLookAt: proof.findings.length - fails };
}

function countWords(before: Counts | null, after: Counts | null): string {
  if (!before || !after) return '';
  return wordsOf('palette.fails-before-after-look', {
    fails: before.fails,
    fails2: after.fails,
    toLookAt: before.toLookAt,
    toLookAt2: after.toLookAt,
  });
}
