import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RevisionRequest, validateBody } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Engine } from '../shared/engine/engine';
import type { PublishCheck } from '../shared/engine/engine-api';
import { Delivery } from '../shared/site/delivery';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';
import { withProgress } from '../shared/engine/with-progress';

/** Asks for a note, then saves or publishes the draft. */
@Component({
  selector: 'uv-publish-dialog',
  imports: [Button, Dialog, FormsModule, InputText, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '440px' }" [header]="isPublish() ? wordsOf('shell.publish-veneer') : wordsOf('shell.save-revision')">
      @if (done(); as address) {
        <p i18n>Revision {{ store.draft()?.publishedRevision }} is what visitors now get.</p>
        <p class="address"><a [href]="address" target="_blank" rel="noopener">{{ address }}</a></p>
      } @else if (delivery.act() !== null) {
        <p role="status">{{ delivery.words() }}</p>
        <span class="track" role="progressbar" aria-label="How far it is" i18n-aria-label [attr.aria-valuenow]="delivery.share() === null ? null : delivery.share()! * 100"><span class="uv-grain" [style.width.%]="(delivery.share() ?? 0.05) * 100"></span></span>
        <p class="uv-soft check" i18n>Every rewrite of the sheet is checked on all pages. Work on the draft can go on; what is saved is the draft as it was.</p>
        <div class="acts">
          <p-button [label]="isPublish() ? wordsOf('shell.do-not-publish') : wordsOf('shell.do-not-save')" [text]="true" (onClick)="delivery.cancel()" />
          <p-button label="Go on working" i18n-label (onClick)="closed.emit()" />
        </div>
      } @else {
        <form (ngSubmit)="submit()" class="form">
          <p>{{ isPublish() ? publishText() : wordsOf('shell.draft-kept-as-work') }}</p>
          @if (isPublish()) {
            @if (found(); as check) {
              @if (check.failing.length === 0) {
                <p class="check" i18n><uv-standing
                  standing="holds"
                  /> Of {{ store.overrides().length }} overrides none fails, on any page, in any state or width that was looked at.</p>
              } @else {
                <p class="check" i18n><uv-standing standing="fails" /> {{ check.failing.length }} of {{ store.overrides().length }} overrides fail somewhere:</p>
                <ul class="fails uv-scroll" tabindex="0" aria-label="What fails" i18n-aria-label>
                  @for (entry of check.failing; track $index) {
                    <li>{{ entry.words }} <strong>{{ entry.fails.join('; ') }}</strong></li>
                  }
                </ul>
              }
              @if (check.open > 0) {
                <p class="check" i18n><uv-standing
                  standing="look"
                  /> {{ check.open }} {check.open, plural, =1 {leaves} other {leave}} something to be looked at, or was not wholly looked at; the Bench says what.</p>
              }
            } @else { <p class="check uv-soft" role="status" i18n>Checking what would go out… {{ checked() }}</p> }
          }
          @if (needsNote()) {
            <label for="uv-note" i18n>What changed <span class="uv-soft">(optional)</span></label>
            <input pInputText id="uv-note" name="note" autocomplete="off" [ngModel]="note()" (ngModelChange)="note.set($event)" [attr.aria-invalid]="error() !== ''" aria-describedby="uv-note-error" />
            <p id="uv-note-error" class="error" role="alert">{{ error() }}</p>
          }
          <div class="acts">
            <p-button label="Cancel" i18n-label [text]="true" (onClick)="closed.emit()" />
            <p-button type="submit" [label]="actWords()" [disabled]="error() !== ''" />
          </div>
        </form>
      }
      @if (done()) { <div class="acts"><p-button label="Close" i18n-label (onClick)="closed.emit()" /></div> }
    </p-dialog>
  `,
  styles: `
    .form { display: grid; gap: 6px; }
    .form label { margin-top: 8px; font-weight: 600; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; margin-top: 10px; }
    .error { min-height: 18px; color: var(--uv-fails); }
    .check { margin-top: 6px; }
    .track { display: block; height: 6px; margin: 10px 0; background: var(--uv-bar); border: 1px solid var(--uv-line-strong); }
    .track span { display: block; height: 100%; }
    .fails { max-height: 180px; margin: 0 0 4px; padding: 0 0 0 19px; font-size: 12.5px; }
    .fails li { margin-top: 4px; }
    .address { margin-top: 6px; overflow-wrap: anywhere; }
    a { color: inherit; }
  `,
})
export class PublishDialog {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SiteStore);
  protected readonly delivery = inject(Delivery);
  readonly act = input.required<'save' | 'publish'>();
  readonly closed = output();

  readonly #engine = inject(Engine);
  /** What fails of the draft; `null` until it is known. */
  protected readonly found = signal<PublishCheck | null>(null);
  protected readonly checked = signal('');
  protected readonly note = signal('');
  protected readonly done = signal<string | null>(null);
  protected readonly isPublish = computed(() => this.act() === 'publish');
  protected readonly needsNote = computed(() => this.store.draft()?.equalsRevision === null);
  protected readonly publishText = computed(() => {
    const draft = this.store.draft();
    return draft?.equalsRevision != null
      ? wordsOf('shell.revision-goes-stand-host', { equalsRevision: draft.equalsRevision })
      : wordsOf('shell.draft-saved-as-revision', { number: (draft?.revisions[0]?.number ?? 0) + 1 });
  });
  protected readonly actWords = computed(() => {
    if (!this.isPublish()) return wordsOf('shell.save-revision-act');
    return (this.found()?.failing.length ?? 0) > 0 ? wordsOf('shell.publish-all-same') : wordsOf('shell.publish');
  });
  protected readonly error = computed(() => {
    const result = validateBody(RevisionRequest, { note: this.note() });
    return result.ok ? '' : wordsOf('shell.note', { reason: result.errors[0].reason });
  });

  #isGone = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.#isGone = true));
    afterNextRender(() => {
      if (this.isPublish()) void this.#check();
    });
  }

  /** Judges every override over the whole site before it goes out. */
  async #check(): Promise<void> {
    this.found.set(
      await withProgress(
        (done: number, total: number) => this.checked.set(wordsOf('shell.done-of-total', { done, total })),
        (listener) => this.#engine.remote.failing(listener),
      ),
    );
  }

  protected async submit(): Promise<void> {
    if (this.error() !== '') return;
    const act = this.act();
    const isDone = await this.delivery.begin(act, this.note());
    if (!isDone) return;
    if (this.#isGone) this.delivery.announce(act);
    else if (act === 'publish') this.done.set(this.store.site()?.hostUrl ?? '');
    else this.closed.emit();
  }
}
