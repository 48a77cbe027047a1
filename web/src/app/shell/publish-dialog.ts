import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RevisionRequest, validateBody } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { SiteStore } from '../shared/site/site-store';

/** Asks for a note, then saves or publishes the draft. */
@Component({
  selector: 'uv-publish-dialog',
  imports: [Button, Dialog, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" [style]="{ width: '440px' }" [header]="isPublish() ? 'Publish the veneer' : 'Save a revision'">
      @if (done(); as address) {
        <p>Revision {{ store.draft()?.publishedRevision }} is what visitors now get.</p>
        <p class="address"><a [href]="address" target="_blank" rel="noopener">{{ address }}</a></p>
      } @else {
        <form (ngSubmit)="submit()" class="form">
          <p>{{ isPublish() ? publishText() : 'The draft is kept as it is; work on it goes on.' }}</p>
          @if (needsNote()) {
            <label for="uv-note">What changed <span class="uv-soft">(optional)</span></label>
            <input pInputText id="uv-note" name="note" autocomplete="off" [ngModel]="note()" (ngModelChange)="note.set($event)" [attr.aria-invalid]="error() !== ''" aria-describedby="uv-note-error" />
            <p id="uv-note-error" class="error" role="alert">{{ error() }}</p>
          }
          <div class="acts">
            <p-button label="Cancel" [text]="true" (onClick)="closed.emit()" />
            <p-button type="submit" [label]="isPublish() ? 'Publish' : 'Save revision'" [loading]="isBusy()" [disabled]="error() !== ''" />
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
    .address { margin-top: 6px; overflow-wrap: anywhere; }
    a { color: inherit; }
  `,
})
export class PublishDialog {
  protected readonly store = inject(SiteStore);
  readonly act = input.required<'save' | 'publish'>();
  readonly closed = output();

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
