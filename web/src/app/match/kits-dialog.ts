import { errorText, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { KitDocument } from '@upper-veneer/contract';
import type { Kit, KitFit, LaidKit } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import type { Observable } from 'rxjs';
import { ApiProblem } from '../shared/api/api-problem';
import { SiteApi } from '../shared/api/site-api';
import { Engine } from '../shared/engine/engine';
import { withProgress } from '../shared/engine/with-progress';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { downloadText, fileNameOf } from '../shared/ui/download-text';

/** A kit with how far it is known again on the open site. */
type Shown = KitDocument & { readonly fit: KitFit | null };

const MOST_BYTES = 2_000_000;

/** Kits over all sites: keep a part's match as one, lay one on the open site, hand one on as a file. */
@Component({
  selector: 'uv-kits-dialog',
  imports: [Button, Dialog, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="close()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '720px', maxWidth: '96vw' }" header="Kits" i18n-header>
      <div class="all">
        <form class="keep" (ngSubmit)="keep()">
          <p-select name="part" [options]="parts()" optionLabel="name" optionValue="id" [ngModel]="part()" (ngModelChange)="part.set($event)" placeholder="A matched part" i18n-placeholder size="small" ariaLabel="Part to keep as a kit" i18n-ariaLabel appendTo="self" />
          <input pInputText pSize="small" name="name" maxlength="120" [placeholder]="partName() || wordsOf('match.name')" aria-label="Name of the kit" i18n-aria-label autocomplete="off" [ngModel]="name()" (ngModelChange)="name.set($event)" />
          <p-button type="submit" label="Keep as a kit" i18n-label size="small" [disabled]="part() === null" />
          <p-button label="Bring in a file" i18n-label [outlined]="true" size="small" (onClick)="file.click()" /><input #file type="file" accept=".json,application/json" hidden aria-label="Kit to bring in" i18n-aria-label (change)="read(file)" />
        </form>
        @if (problem() !== '') { <p class="problem" role="alert">{{ problem() }}</p> }
        @if (told(); as laid) {
          <div class="told" role="status">
            <p><strong>{{ laidWords(laid) }}</strong></p>
            @if (laid.misfits.length + laid.wider.length > 0) {
              <ul class="uv-scroll">
                @for (misfit of misfitsOf(laid); track $index) {
                  <li>
                    @if (misfit.selector) {
                      <span class="uv-mono">{{ misfit.selector }}</span>
                    } @else {
                      <ng-container i18n> own CSS </ng-container>
                    }
                    {{ misfit.property }}
                    <span class="uv-soft">{{ misfit.reason }}</span>
                  </li>
                }
              </ul>
            }
          </div>
        }
        <ul class="kits uv-scroll" aria-label="Kits that are kept" i18n-aria-label>
          @for (own of kits(); track own.id) {
            <li>
              <div><strong>{{ own.kit.name }}</strong> <span class="uv-soft" i18n>made on {{ own.kit.madeOn }}, {{ own.keptAt.slice(0, 10) }}, {{ own.kit.rules.length }} {own.kit.rules.length, plural, =1 {rule} other {rules}}{{ own.kit.ownCss ? wordsOf('match.own-css') : '' }}</span>
                <p class="uv-soft">{{ fitWords(own.fit) }}</p></div>
              <span class="acts">
                @if (laying() === own.id) {
                  <span role="status" i18n>{{ progress().done }} of {{ progress().total }}</span>
                  <p-button label="Stop" i18n-label [outlined]="true" size="small" (onClick)="stop()" />
                } @else {
                  <p-button
                    label="Lay it on" i18n-label size="small" [disabled]="laying() !== null || !own.fit?.rules"
                    (onClick)="lay(own)" />
                }
                <p-button label="File" i18n-label [outlined]="true" size="small" (onClick)="save(own.kit)" [ariaLabel]="wordsOf('match.save-kit-as-file', { name: own.kit.name })" />
                <p-button label="Take away" i18n-label [text]="true" size="small" (onClick)="drop(own.id)" />
              </span>
            </li>
          } @empty { <li class="uv-soft none">{{ isRead() ? wordsOf('match.none-kept-yet-part') : wordsOf('match.reading-kits') }}</li> }
        </ul>
      </div>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    .all { display: grid; gap: 10px; }
    .keep { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto auto; gap: 6px; }
    .keep p-select { min-width: 0; width: 100%; }
    .problem, .told { padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; }
    .told ul { max-height: 120px; margin: 4px 0 0; padding-left: 18px; }
    .kits { max-height: 46vh; margin: 0; padding: 0; list-style: none; border-top: 1px solid var(--uv-line); }
    .kits li { display: flex; justify-content: space-between; gap: 12px; padding: 8px 0; border-bottom: 1px solid var(--uv-line); }
    .kits strong { margin-right: 6px; }
    .kits p { margin: 2px 0 0; font-size: 12.5px; }
    .acts { display: flex; flex: none; gap: 6px; align-items: center; }
    @media (max-width: 600px) { .keep { grid-template-columns: 1fr; } .kits li { flex-wrap: wrap; } }
  `,
})
export class KitsDialog {
  protected readonly wordsOf = wordsOf;

  readonly closed = output();
  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #engine = inject(Engine);
  readonly #api = inject(SiteApi);
  protected readonly kits = signal<readonly Shown[]>([]);
  protected readonly isRead = signal(false);
  protected readonly part = signal<number | null>(null);
  protected readonly name = signal('');
  protected readonly problem = signal('');
  protected readonly laying = signal<number | null>(null);
  protected readonly progress = signal({ done: 0, total: 0 });
  protected readonly told = signal<Spoken<LaidKit> | null>(null);
  /** Parts that have something to keep. */
  protected readonly parts = computed(() => {
    const matched = new Set(this.#site.overrides().map(({ partId }) => partId));
    return (this.#site.site()?.parts ?? []).filter(({ id }) => matched.has(id)).map(({ id, name }) => ({ id, name }));
  });
  protected readonly partName = computed(() => this.parts().find(({ id }) => id === this.part())?.name ?? '');

  constructor() {
    this.#listed(this.#api.kits());
  }

  protected close(): void {
    this.stop();
    this.closed.emit();
  }

  protected async keep(): Promise<void> {
    const [part, site] = [this.part(), this.#site.site()];
    if (part === null || !site) return;
    const kit = await this.#engine.remote.makeKit(part, this.name().trim() || this.partName(), site.name);
    if (!kit) this.problem.set(wordsOf('match.has-no-overrides-or', { partName: this.partName() }));
    else this.#listed(this.#api.keepKit(kit));
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    if (file.size > MOST_BYTES) {
      this.problem.set(wordsOf('match.larger-than-mb-which', { name: file.name, MOSTBYTES: MOST_BYTES / 1_000_000 }));
      return;
    }
    try {
      this.#listed(this.#api.keepKit(JSON.parse(await file.text()) as Kit));
    } catch (error) {
      this.problem.set(wordsOf('match.no-json', { name: file.name, error: errorText(error) }));
    }
  }

  protected save(kit: Kit): void {
    downloadText(`${fileNameOf(kit.name)}.kit.json`, 'application/json', `${JSON.stringify(kit, null, 2)}\n`);
  }

  protected drop(id: number): void {
    this.#listed(this.#api.dropKit(id));
  }

  protected async lay({ id, kit }: Shown): Promise<void> {
    this.laying.set(id);
    this.told.set(null);
    this.progress.set({ done: 0, total: kit.rules.length });
    try {
      const laid = await withProgress(
        (progress: { readonly done: number; readonly total: number }) => this.progress.set(progress),
        (listener) => this.#engine.remote.layKit(kit, listener),
      );
      if (!laid) return;
      if (laid.put.length > 0 || laid.ownCss)
        this.#edits
          .change({
            label: wordsOf('match.lay-kit', { name: kit.name }).slice(0, 200),
            put: laid.put,
            drop: laid.drop,
            ...(laid.ownCss ? { ownCss: laid.ownCss } : {}),
          })
          .subscribe(() => this.told.set(laid));
      else this.told.set(laid);
    } catch (error) {
      this.#engine.tell(error);
    } finally {
      this.laying.set(null);
    }
  }

  protected stop(): void {
    if (this.laying() !== null) void this.#engine.remote.stopKit();
  }

  protected fitWords(fit: KitFit | null): string {
    if (!fit) return wordsOf('match.looking-for-here');
    const part = this.#site.site()?.parts.find(({ id }) => id === fit.partId)?.name;
    const known =
      fit.spot === null
        ? wordsOf('match.nothing-here-like-most', {
            case: fit.likeness > 0 ? 'yes' : 'no',
            likeness: Math.round(fit.likeness * 100),
          })
        : wordsOf('match.known-again-its-classes', {
            part: part ? 'yes' : 'no',
            part2: part ?? '',
            likeness: Math.round(fit.likeness * 100),
          });
    return wordsOf('match.rules-have-something-match', { known, rules: fit.rules, of: fit.of });
  }

  protected laidWords({ put, misfits, wider, ownCss }: Spoken<LaidKit>): string {
    const own = ownCss ? wordsOf('match.its-own-css') : '';
    const laid = wordsOf('match.override-overrides-laid-as', { put: put.length, own });
    const notes = [
      misfits.length === 0 ? '' : wordsOf('match.kit-no-place-here', { misfits: misfits.length }),
      wider.length === 0 ? '' : wordsOf('match.reaches-reach-further-than', { wider: wider.length }),
    ].filter((note) => note !== '');
    return notes.length === 0 ? wordsOf('match.everything-fits', { laid }) : `${laid}; ${notes.join(', ')}:`;
  }

  protected misfitsOf({ misfits, wider }: Spoken<LaidKit>): Spoken<LaidKit>['misfits'] {
    return [...misfits, ...wider];
  }

  /** Takes in what the server keeps, and asks how far each is known again here. */
  #listed(answer: Observable<readonly KitDocument[]>): void {
    this.problem.set('');
    answer.subscribe({
      next: (kits) => {
        this.kits.set(kits.map((own) => ({ ...own, fit: null })));
        this.isRead.set(true);
        this.#engine.remote.kitFits(kits.map(({ kit }) => kit)).then(
          (fits) => this.kits.set(kits.map((own, i) => ({ ...own, fit: fits[i] ?? null }))),
          (error: unknown) => this.#engine.tell(error),
        );
      },
      error: (error: unknown) => this.problem.set(ApiProblem.from(error).message),
    });
  }
}
