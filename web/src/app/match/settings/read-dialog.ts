import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { readSettings, withSettingsRead } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { ApiProblem } from '../../shared/api/api-problem';
import { SiteApi } from '../../shared/api/site-api';
import { SiteStore } from '../../shared/site/site-store';
import { SettingsStore } from './settings-store';

const MOST_BYTES = 200_000;

/** Reads a maker's fields: pasted as a list, from a file, or from the maker's own address. */
@Component({
  selector: 'uv-settings-read-dialog',
  imports: [Button, Dialog, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '680px', maxWidth: '96vw' }" header="Read the maker’s fields" i18n-header>
      <form (ngSubmit)="take()">
        <label class="from"><ng-container i18n>From the maker’s address
          </ng-container><span><input pInputText pSize="small" name="address" maxlength="2000" autocomplete="off" spellcheck="false" placeholder="https://" [ngModel]="address()" (ngModelChange)="address.set($event)" />
          <p-button label="Ask" i18n-label [outlined]="true" size="small" [disabled]="isAsking() || address().trim() === ''" (onClick)="ask()" />
          <p-button label="From a file…" i18n-label [outlined]="true" size="small" (onClick)="file.click()" /><input #file type="file" accept=".json,.txt,application/json,text/plain" hidden aria-label="File of fields" i18n-aria-label (change)="readFile(file)" /></span>
        </label>
        <label><ng-container i18n>Or typed, or pasted as a list: name, colon, value; one a line
          </ng-container><textarea pInputText name="text" rows="9" class="uv-mono" spellcheck="false" placeholder="Button: #2f6b4f&#10;Button text: 255, 255, 255" i18n-placeholder [ngModel]="text()" (ngModelChange)="text.set($event)"></textarea>
        </label>
        @if (problem() !== '') { <p class="problem" role="alert">{{ problem() }}</p> }
        @if (text().trim() !== '') {
          <div class="read" role="status">
            <p><strong>{{ words() }}</strong></p>
            @if (reading().problems.length > 0) {
              <ul class="uv-scroll">
                @for (entry of reading().problems; track $index) {
                  <li><span class="uv-mono">{{ entry.where }}</span> {{ entry.reason }}</li>
                }
              </ul>
            }
          </div>
        }
        <div class="acts"><p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" label="Take them over" i18n-label size="small" [disabled]="reading().fields.length === 0" /></div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 10px; }
    label { display: grid; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    .from span { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 6px; }
    textarea { width: 100%; resize: vertical; }
    .problem, .read { margin: 0; padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; }
    .read ul { max-height: 110px; margin: 4px 0 0; padding-left: 18px; overflow: auto; }
    .acts { display: flex; gap: 8px; justify-content: flex-end; }
    @media (max-width: 600px) { .from span { grid-template-columns: minmax(0, 1fr); } }
  `,
})
export class SettingsReadDialog {
  readonly #store = inject(SettingsStore);
  readonly #site = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly closed = output();

  protected readonly address = signal(this.#store.sheet()?.address ?? '');
  protected readonly text = signal('');
  protected readonly problem = signal('');
  protected readonly isAsking = signal(false);
  protected readonly reading = computed(() => spoken(readSettings(this.text())));
  protected readonly words = computed(() => {
    const known = new Set((this.#store.sheet()?.fields ?? []).map(({ name }) => name.toLowerCase()));
    const { fields, problems } = this.reading();
    const again = fields.filter(({ name }) => known.has(name.toLowerCase())).length;
    return [
      wordsOf('match.field-fields-read', { fields: fields.length }),
      ...(again > 0 ? [wordsOf('match.them-sheet-already-which', { again })] : []),
      ...(problems.length > 0 ? [wordsOf('match.not-read', { problems: problems.length })] : []),
    ].join(' · ');
  });

  protected ask(): void {
    const site = this.#site.site();
    if (!site) return;
    this.problem.set('');
    this.isAsking.set(true);
    this.#api.settingsOffered(site.id, this.#store.partId(), this.address().trim()).subscribe({
      next: ({ text }) => {
        this.isAsking.set(false);
        this.text.set(text);
      },
      error: (error: unknown) => {
        this.isAsking.set(false);
        this.problem.set(ApiProblem.from(error).message);
      },
    });
  }

  protected async readFile(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    this.problem.set(
      file.size > MOST_BYTES ? wordsOf('match.larger-than-kb', { name: file.name, MOSTBYTES: MOST_BYTES / 1000 }) : '',
    );
    if (file.size <= MOST_BYTES) this.text.set(await file.text());
  }

  protected take(): void {
    if (this.reading().fields.length === 0) return;
    const before = this.#store.sheet() ?? this.#store.begun();
    this.#store.put(wordsOf('match.read-maker-fields'), withSettingsRead(before, this.reading()));
    this.closed.emit();
  }
}
