import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { SnippetPut } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Textarea } from 'primeng/textarea';
import { Engine } from '../../shared/engine/engine';

/** A file longer than this is not read, bytes. */
const MOST_BYTES = 400_000;

/** Puts an earlier sheet or a pasted snippet into the edited one, each rule in the section of the part it is for. */
@Component({
  selector: 'uv-snippet-dialog',
  imports: [Button, Dialog, FormsModule, Textarea],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="body" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '640px', maxWidth: '96vw' }" header="Put CSS in" i18n-header>
      <form class="form" (ngSubmit)="put()">
        <p class="uv-soft" i18n>An earlier sheet of yours, or a snippet. What stands in the sheet already is left out; the rest goes to the part it is for, and nothing is taken over before you have seen what becomes of it.</p>
        <label for="uv-snippet" i18n>CSS</label>
        <textarea pTextarea id="uv-snippet" name="css" class="uv-mono" rows="12" spellcheck="false" autofocus [ngModel]="css()" (ngModelChange)="css.set($event); problem.set('')"></textarea>
        @if (problem() !== '') { <p class="problem" role="alert">{{ problem() }}</p> }
        <div class="acts">
          <p-button label="Choose a file" i18n-label [outlined]="true" (onClick)="file.click()" /><input #file type="file" accept=".css,text/css,text/plain" hidden aria-label="Stylesheet to put in" i18n-aria-label (change)="read(file)" />
          <span class="gap"></span>
          <p-button label="Cancel" i18n-label [text]="true" (onClick)="closed.emit()" /><p-button type="submit" label="Put in" i18n-label [disabled]="css().trim() === ''" />
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    .form { display: grid; gap: 8px; }
    textarea { width: 100%; font-family: var(--uv-mono); font-size: 12.5px; }
    .problem { padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); }
    .acts { display: flex; gap: 8px; }
    .gap { flex: 1; }
  `,
})
export class SnippetDialog {
  /** The text it is put into. */
  readonly text = input.required<string>();
  readonly made = output<SnippetPut>();
  readonly closed = output();
  readonly #engine = inject(Engine);
  protected readonly css = signal('');
  protected readonly problem = signal('');

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    if (file.size > MOST_BYTES) {
      this.problem.set(
        wordsOf('sheet.has-kb-bound-kb', {
          name: file.name,
          file: (file.size / 1000).toFixed(0),
          MOSTBYTES: MOST_BYTES / 1000,
        }),
      );
      return;
    }
    this.css.set(await file.text());
    this.problem.set('');
  }

  protected async put(): Promise<void> {
    try {
      const put = await this.#engine.remote.putInSnippet(this.text(), this.css());
      if (typeof put === 'string') this.problem.set(wordsOf('sheet.cannot-be-put', { put }));
      else this.made.emit(put);
    } catch (error) {
      this.#engine.tell(error);
    }
  }
}
