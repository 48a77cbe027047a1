import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { PIECES, PIECE_FORMS, type Piece, type PieceForm } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { Popover } from 'primeng/popover';
import { SelectButton } from 'primeng/selectbutton';
import { Engine } from '../../shared/engine/engine';

const WORDS: Readonly<Record<Piece, string>> = {
  rule: wordsOf('sheet.rule'),
  declaration: wordsOf('sheet.line'),
  value: wordsOf('sheet.bare-value'),
};
const FORM_WORDS: Readonly<Record<PieceForm, string>> = {
  'as written': wordsOf('sheet.name'),
  'with fallback': wordsOf('sheet.name-colour'),
  plain: wordsOf('sheet.colour-alone'),
};
const COPIED_MS = 1600;

/** Copies what stands at the caret, to be pasted elsewhere: a rule, a line or a value, its colours by name, by value, or both. */
@Component({
  selector: 'uv-copy-piece',
  imports: [Button, Checkbox, FormsModule, Popover, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-button label="Copy…" i18n-label [outlined]="true" size="small" (onClick)="panel.toggle($event)" ariaHasPopup="dialog" />
    <p-popover #panel ariaLabel="Copy what stands at the caret" i18n-ariaLabel>
      <ng-template #content>
        <div class="panel">
          <p-selectbutton [options]="forms" optionLabel="label" optionValue="form" [ngModel]="form()" (ngModelChange)="form.set($event)" [allowEmpty]="false" size="small" aria-label="How colours of the palette are written" i18n-aria-label />
          <span class="check"><p-checkbox [binary]="true" [ngModel]="hasSemicolon()" (ngModelChange)="hasSemicolon.set($event)" inputId="uv-semicolon" /><label for="uv-semicolon" i18n>Semicolon after a line or value</label></span>
          <div class="acts">
            @for (piece of pieces; track piece.piece) {
              <p-button
                [label]="copied() === piece.piece ? wordsOf('sheet.copied') : piece.label" [outlined]="true" size="small"
                (onClick)="copy(piece.piece)" />
            }
          </div>
          @if (shown() !== '') {
            <pre class="uv-mono uv-scroll" tabindex="0" aria-label="What was copied" i18n-aria-label>{{ shown() }}</pre>
          }
        </div>
      </ng-template>
    </p-popover>
  `,
  styles: `
    .panel { display: grid; gap: 8px; width: min(380px, 84vw); font-size: 12.5px; }
    .check { display: flex; align-items: center; gap: 8px; }
    .acts { display: flex; flex-wrap: wrap; gap: 8px; }
    pre { max-height: 150px; margin: 0; padding: 8px 10px; background: var(--uv-bar); font-size: 12px; white-space: pre-wrap; overflow-wrap: anywhere; }
  `,
})
export class CopyPiece {
  protected readonly wordsOf = wordsOf;

  readonly text = input.required<string>();
  readonly caret = input.required<number>();
  readonly #engine = inject(Engine);
  protected readonly form = signal<PieceForm>('with fallback');
  protected readonly hasSemicolon = signal(true);
  protected readonly copied = signal<Piece | null>(null);
  protected readonly shown = signal('');
  protected readonly pieces = PIECES.map((piece) => ({ piece, label: WORDS[piece] }));
  protected readonly forms = PIECE_FORMS.map((form) => ({ form, label: FORM_WORDS[form] }));

  protected async copy(piece: Piece): Promise<void> {
    const question = { piece, form: this.form(), hasSemicolon: this.hasSemicolon() };
    try {
      const css = await this.#engine.remote.pieceAt(this.text(), this.caret(), question);
      this.shown.set(css ?? wordsOf('sheet.caret-stands-no-rule'));
      if (css === null) return;
      await navigator.clipboard.writeText(css);
      this.copied.set(piece);
      setTimeout(() => this.copied.set(null), COPIED_MS);
    } catch (error) {
      this.#engine.tell(error);
    }
  }
}
