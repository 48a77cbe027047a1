import { spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { OPENER_ACTS, type OpenerBody } from '@upper-veneer/contract';
import { selectorProblem, type PartTemplate, type TemplateCheck } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { Engine } from '../../shared/engine/engine';
import { withProgress } from '../../shared/engine/with-progress';
import { ACT_WORDS } from '../../shared/site/act-words';
import { DraftEdits } from '../../shared/site/draft-edits';
import { withPart } from '../../shared/site/part-edits';
import { SiteStore } from '../../shared/site/site-store';
import { StandingMark } from '../../shared/ui/standing-mark';

/** Faults that are listed of one template. */
const MOST_LISTED = 40;

/** The forms a part can come in: its match is by role and goes along; each is checked for what no longer holds in it. */
@Component({
  selector: 'uv-templates-dialog',
  imports: [Button, Dialog, FormsModule, InputText, RouterLink, Select, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="close()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '760px', maxWidth: '96vw' }" [header]="wordsOf('match.templates', { name: name() })">
      <div class="all">
        <p class="uv-soft" i18n>The match is kept by role and goes along from one form to the next. Switching shows the part in another of them everywhere here; visitors get the one its maker is told to use.</p>
        <ul class="forms uv-scroll" aria-label="Templates" i18n-aria-label>
          @for (form of forms(); track form.name) {
            <li>
              <div class="head">
                <label class="pick"><input type="radio" name="form" [checked]="form.isCurrent" (change)="turnTo(form.name)" /> <strong>{{ form.name || wordsOf('match.as-captured') }}</strong></label>
                <span class="uv-soft words uv-mono" [title]="form.words">{{ form.words }}</span>
                @if (form.check; as own) {
                  <span class="figure"><uv-standing [standing]="own.faults.length === 0 ? 'holds' : 'look'" />
                    &ngsp;{{ own.faults.length === 0 ? wordsOf('match.all-holds') : wordsOf('match.thing-holds-no-longer', { faults: own.faults.length }) }}</span>
                } @else if (form.isCurrent) { <span class="figure uv-soft" i18n>shown now</span> }
                @if (form.name !== '') {
                  <p-button
                    label="Take away" i18n-label [text]="true" size="small" (onClick)="drop(form.name)"
                    [ariaLabel]="wordsOf('match.take-away-template', { name: form.name })" />
                }
              </div>
              @if (form.check; as own) {
                @if (own.faults.length > 0) {
                  <ul class="faults">
                    @for (fault of own.faults.slice(0, most); track $index) {
                      <li>
                        {{ fault.words }}
                        @if (fault.places > 1) {
                          <span class="uv-soft" i18n>· {{ fault.places }} places</span>
                        }
                        <a routerLink="/bench" [queryParams]="{ page: fault.spot.pageId, element: fault.spot.element }" i18n>Bench</a>
                      </li>
                    }
                    @if (own.faults.length > most) { <li class="uv-soft" i18n>and {{ own.faults.length - most }} more</li> }
                  </ul>
                }
                <p class="uv-soft basis">
                  <ng-container i18n>{{ own.looks }} things looked at on {{ own.pages }} {own.pages, plural, =1 {page} other {pages}}, in every state, width and lighting (pictures and alignment at rest), against the form shown now.</ng-container>
                  @if (own.unseen.length > 0) {
                    <ng-container i18n> Not looked at: {{ own.unseen.join(', ') }}. </ng-container>
                  }
                </p>
              }
            </li>
          }
        </ul>
        <div class="checks">
          @if (progress(); as at) {
            <span
              role="status"
              i18n>Checking {{ at.template || wordsOf('match.as-captured-inner') }}, {{ (100 * at.share).toFixed(0) }} %</span>
            <p-button label="Stop" i18n-label [outlined]="true" size="small" (onClick)="stop()" />
          } @else { <p-button label="Check all" i18n-label size="small" [disabled]="forms().length < 2" (onClick)="check()" /> }
        </div>
        <form (ngSubmit)="add()">
          <h2 i18n>Another template</h2>
          <div class="line">
            <input pInputText pSize="small" name="name" maxlength="60" placeholder="its name" i18n-placeholder aria-label="Name of the template" i18n-aria-label autocomplete="off" [ngModel]="draft().form" (ngModelChange)="set({ form: $event })" />
            <input pInputText pSize="small" class="uv-mono" name="of" maxlength="4000" placeholder="selector" aria-label="Selector of what changes" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="draft().selector" (ngModelChange)="set({ selector: $event })" />
            <p-select [options]="acts" optionLabel="label" optionValue="act" name="act" [ngModel]="draft().act" (ngModelChange)="set({ act: $event })" size="small" ariaLabel="What changes" i18n-ariaLabel appendTo="body" />
            <input pInputText pSize="small" class="uv-mono" name="attribute" placeholder="name" aria-label="Class or attribute" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="draft().name" (ngModelChange)="set({ name: $event })" />
            @if (draft().act === 'set-attribute') {
              <input
                pInputText pSize="small" class="uv-mono" name="value" placeholder="value" aria-label="Value"
                i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="draft().value"
                (ngModelChange)="set({ value: $event })" />
            }
            <p-button type="submit" label="Add" i18n-label [outlined]="true" size="small" [disabled]="problem() !== null" />
          </div>
          @if (draft().selector !== '' && problem()) { <p class="uv-soft">{{ problem() }}</p> }
        </form>
      </div>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    .all { display: grid; gap: 12px; }
    p { margin: 0; font-size: 12.5px; }
    h2 { margin-bottom: 5px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    ul { margin: 0; padding: 0; list-style: none; }
    .forms { max-height: 46vh; border-top: 1px solid var(--uv-line); overflow: auto; }
    .forms > li { padding: 7px 0; border-bottom: 1px solid var(--uv-line); }
    .head { display: flex; align-items: center; gap: 10px; min-height: 30px; }
    .pick { display: flex; flex: none; align-items: center; gap: 7px; min-height: 24px; }
    .pick input { width: 15px; height: 15px; margin: 0; accent-color: var(--uv-ink); }
    .words { flex: 1; min-width: 0; overflow: hidden; font-size: 12px; text-overflow: ellipsis; white-space: nowrap; }
    .figure { flex: none; font-size: 12.5px; }
    .faults { margin: 4px 0 4px 22px; font-size: 12.5px; }
    .faults li { padding: 2px 0; }
    .faults a { margin-left: 6px; color: inherit; }
    .basis { margin-left: 22px; }
    .checks { display: flex; align-items: center; gap: 10px; }
    .line { display: flex; flex-wrap: wrap; gap: 6px; }
    .line input { width: 124px; }
  `,
})
export class TemplatesDialog {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #engine = inject(Engine);
  readonly partId = input.required<number>();
  readonly closed = output();

  protected readonly most = MOST_LISTED;
  protected readonly acts = OPENER_ACTS.map((act) => ({ act, label: ACT_WORDS[act] }));
  protected readonly progress = signal<{ readonly template: string; readonly share: number } | null>(null);
  readonly #checks = signal<readonly Spoken<TemplateCheck>[]>([]);
  protected readonly draft = signal<OpenerBody & { readonly form: string }>({
    form: '',
    selector: '',
    act: 'set-attribute',
    name: '',
    value: '',
  });

  readonly #part = computed(() => this.#site.site()?.parts.find(({ id }) => id === this.partId()) ?? null);
  protected readonly name = computed(() => this.#part()?.name ?? '');
  protected readonly forms = computed(() => {
    const part = this.#part();
    const current = part?.template ?? '';
    const all: readonly PartTemplate[] = [{ name: '', acts: [] }, ...(part?.templates ?? [])];
    return all.map(({ name, acts }) => ({
      name,
      isCurrent: name === current,
      words: acts.map(actWords).join('; '),
      check: this.#checks().find(({ template }) => template === name) ?? null,
    }));
  });
  protected readonly problem = computed(() => {
    const { form, selector, name } = this.draft();
    if (form.trim() === '') return wordsOf('match.template-has-no-name');
    if (this.forms().some((own) => own.name.toLowerCase() === form.trim().toLowerCase()))
      return wordsOf('match.name-another', { form: form.trim() });
    return (
      spoken(selectorProblem(selector)) ??
      (/^[A-Za-z_][\w-]{0,79}$/.test(name.trim()) ? null : wordsOf('match.names-no-class-or'))
    );
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected close(): void {
    this.stop();
    this.closed.emit();
  }

  protected set(part: Partial<OpenerBody & { form: string }>): void {
    this.draft.update((draft) => ({ ...draft, ...part }));
  }

  protected turnTo(template: string): void {
    this.#store({ template });
  }

  protected add(): void {
    if (this.problem() !== null) return;
    const { form, selector, act, name, value } = this.draft();
    const acts = [{ selector: selector.trim(), act, name: name.trim(), value: act === 'set-attribute' ? value : '' }];
    this.#store({ templates: [...(this.#part()?.templates ?? []), { name: form.trim(), acts }] });
    this.set({ form: '', name: '', value: '' });
  }

  protected drop(name: string): void {
    const { templates = [], template = '' } = this.#part() ?? {};
    this.#store({
      templates: templates.filter((own) => own.name !== name),
      ...(template === name ? { template: '' } : {}),
    });
  }

  /** Checks every other form against the one shown. */
  protected async check(): Promise<void> {
    this.#checks.set([]);
    try {
      for (const { name } of this.forms().filter(({ isCurrent }) => !isCurrent)) {
        this.progress.set({ template: name, share: 0 });
        const found = await withProgress(
          ({ done, of }: { readonly done: number; readonly of: number }) =>
            this.progress.set({ template: name, share: of === 0 ? 0 : done / of }),
          (listener) => this.#engine.remote.checkTemplate(this.partId(), name, listener),
        );
        if (!found) return;
        this.#checks.update((before) => [...before, found]);
      }
    } catch (error) {
      this.#engine.tell(error);
    } finally {
      this.progress.set(null);
    }
  }

  protected stop(): void {
    if (this.progress()) void this.#engine.remote.stopCheckingTemplates();
  }

  #store(edit: Parameters<typeof withPart>[2]): void {
    this.#checks.set([]);
    const parts = this.#site.site()?.parts ?? [];
    this.#edits.putParts(withPart(parts, this.partId(), edit)).subscribe();
  }
}

function actWords({ selector, act, name, value }: PartTemplate['acts'][number]): string {
  return `${selector} ${ACT_WORDS[act]} ${name}${act === 'set-attribute' ? `="${value}"` : ''}`;
}
