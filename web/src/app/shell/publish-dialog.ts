import { ChangeDetectionStrategy, Component, afterNextRender, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RevisionRequest, validateBody } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { proxy } from 'comlink';
import { Engine } from '../shared/engine/engine';
import type { PublishCheck } from '../shared/engine/engine-api';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';

/** Asks for a note, then saves or publishes the draft. */
@Component({
  selector: 'uv-publish-dialog',
  imports: [Button, Dialog, FormsModule, InputText, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" [style]="{ width: '440px' }" [header]="isPublish() ? 'Publish the veneer' : 'Save a revision'">
      @if (done(); as address) {
        <p>Revision {{ store.draft()?.publishedRevision }} is what visitors now get.</p>
        <p class="address"><a [href]="address" target="_blank" rel="noopener">{{ address }}</a></p>
      } @else {
        <form (ngSubmit)="submit()" class="form">
          <p>{{ isPublish() ? publishText() : 'The draft is kept as it is; work on it goes on.' }}</p>
          @if (isPublish()) {
            @if (found(); as check) {
              @if (check.failing.length === 0) { <p class="check"><uv-standing standing="holds" /> Of {{ store.overrides().length }} overrides none fails, on any page, in any state or width that was looked at.</p> }
              @else {
                <p class="check"><uv-standing standing="fails" /> {{ check.failing.length }} of {{ store.overrides().length }} overrides fail somewhere:</p>
                <ul class="fails uv-scroll" tabindex="0" aria-label="What fails">@for (entry of check.failing; track $index) { <li>{{ entry.words }} <strong>{{ entry.fails.join('; ') }}</strong></li> }</ul>
              }
              @if (check.open > 0) { <p class="check"><uv-standing standing="look" /> {{ check.open }} {{ check.open === 1 ? 'leaves' : 'leave' }} something to be looked at, or was not wholly looked at; the Bench says what.</p> }
            } @else { <p class="check uv-soft" role="status">Checking what would go out… {{ checked() }}</p> }
          }
          @if (needsNote()) {
            <label for="uv-note">What changed <span class="uv-soft">(optional)</span></label>
            <input pInputText id="uv-note" name="note" autocomplete="off" [ngModel]="note()" (ngModelChange)="note.set($event)" [attr.aria-invalid]="error() !== ''" aria-describedby="uv-note-error" />
            <p id="uv-note-error" class="error" role="alert">{{ error() }}</p>
          }
          <div class="acts">
            <p-button label="Cancel" [text]="true" (onClick)="closed.emit()" />
            <p-button type="submit" [label]="isPublish() ? ((found()?.failing?.length ?? 0) > 0 ? 'Publish all the same' : 'Publish') : 'Save revision'" [loading]="isBusy()" [disabled]="error() !== ''" />
          </div>
        </form>
      }
      @if (done()) { <div class="acts"><p-button label="Close" (onClick)="closed.emit()" /></div> }
    </p-dialog>
  `,
  styles: `
    .form { display: grid; gap: 6px; }
    .form label { margin-top: 8px; font-weight: 600; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; margin-top: 10px; }
    .error { min-height: 18px; color: var(--uv-fails); }
    .check { margin-top: 6px; }
    .fails { max-height: 180px; margin: 0 0 4px; padding: 0 0 0 19px; font-size: 12.5px; }
    .fails li { margin-top: 4px; }
    .address { margin-top: 6px; overflow-wrap: anywhere; }
    a { color: inherit; }
  `,
})
export class PublishDialog {
  protected readonly store = inject(SiteStore);
  readonly act = input.required<'save' | 'publish'>();
  readonly closed = output();

  readonly #engine = inject(Engine);
  /** What fails of the draft; `null` until it is known. */
  protected readonly found = signal<PublishCheck | null>(null);
  protected readonly checked = signal('');
  protected readonly note = signal('');
  protected readonly isBusy = signal(false);
  protected readonly done = signal<string | null>(null);
  protected readonly isPublish = computed(() => this.act() === 'publish');
  protected readonly needsNote = computed(() => this.store.draft()?.equalsRevision === null);
  protected readonly publishText = computed(() => {
    const draft = this.store.draft();
    return draft?.equalsRevision != null ? `Revision ${draft.equalsRevision} goes to the stand-in host.` : `The draft is saved as revision ${(draft?.revisions[0]?.number ?? 0) + 1} and goes to the stand-in host.`;
  });
  protected readonly error = computed(() => {
    const result = validateBody(RevisionRequest, { note: this.note() });
    return result.ok ? '' : `The note ${result.errors[0].reason}.`;
  });

  constructor() {
    afterNextRender(() => {
      if (this.isPublish()) void this.#check();
    });
  }

  /** Judges every override over the whole site before it goes out. */
  async #check(): Promise<void> {
    this.found.set(await this.#engine.remote.failing(proxy((done: number, total: number) => this.checked.set(`${done} of ${total}`))));
  }

  protected submit(): void {
    if (this.error() !== '' || this.isBusy()) return;
    this.isBusy.set(true);
    const act = this.isPublish() ? this.store.publish(this.note()) : this.store.saveRevision(this.note());
    act.subscribe({
      next: () => {
        if (this.isPublish()) this.done.set(this.store.site()?.hostUrl ?? '');
        else this.closed.emit();
      },
      complete: () => this.isBusy.set(false),
    });
  }
}
