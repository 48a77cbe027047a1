import { say, spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { valueProblem, type Palette, type RowProperty } from '@upper-veneer/core';
import { InputText } from 'primeng/inputtext';

/** Faces the product ships, offered beside those of the site. */
const SHIPPED_FACES = ['"Atkinson Hyperlegible Next"', '"Atkinson Hyperlegible Mono"', 'system-ui', 'serif'];

/** A value that is no colour: a keyword to press, or a text that is checked while it is typed. */
@Component({
  selector: 'uv-measure-field',
  imports: [FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (choices().length > 0) {
      <div class="choices" role="group" [attr.aria-label]="words()">
        @for (choice of choices(); track choice) {
          <button
            type="button" class="uv-mono" [class.current]="choice === shown()" [attr.aria-pressed]="choice === shown()"
            (click)="picked.emit(choice)">{{ choice }}</button>
        }
      </div>
    }
    <form (ngSubmit)="use()">
      <input pInputText pSize="small" class="uv-mono" name="measure" autocomplete="off" spellcheck="false" [attr.aria-label]="wordsOf('bench.value', { words: words() })" [attr.aria-invalid]="problem() !== ''"
        [ngModel]="text()" (ngModelChange)="text.set($event)" (keydown)="step($event)" />
      <button type="submit" [disabled]="problem() !== '' || text() === shown()" i18n>Use</button>
    </form>
    @if (problem(); as words) { <p class="problem" role="status">{{ words }}</p> }
  `,
  styles: `
    :host { display: grid; gap: 6px; }
    .choices { display: flex; flex-wrap: wrap; gap: 4px; }
    .choices button, form button { padding: 3px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .choices button.current { background: var(--uv-black); color: var(--uv-on-black); border-color: var(--uv-black); }
    form { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 6px; }
    form button:disabled { color: var(--uv-soft); cursor: default; }
    .problem { color: var(--uv-fails); font-size: 12px; overflow-wrap: anywhere; }
  `,
})
export class MeasureField {
  protected readonly wordsOf = wordsOf;

  readonly property = input.required<RowProperty>();
  protected readonly words = computed(() => say(this.property().words));
  /** Value that shows now. */
  readonly shown = input.required<string>();
  readonly palette = input.required<Palette>();
  /** Font families the site has. */
  readonly families = input<readonly string[]>([]);
  readonly picked = output<string>();

  protected readonly text = linkedSignal(() => this.shown());
  protected readonly choices = computed(() => {
    const { kind, keywords } = this.property();
    return kind === 'font' ? [...new Set([...this.families(), ...SHIPPED_FACES])].slice(0, 8) : (keywords ?? []);
  });
  protected readonly problem = computed(() => {
    const text = this.text().trim();
    return text === '' || text === this.shown()
      ? ''
      : (spoken(valueProblem(this.property().property, { kind: 'literal', css: text }, this.palette())) ?? '');
  });

  protected use(): void {
    const text = this.text().trim();
    if (text !== '' && this.problem() === '' && text !== this.shown()) this.picked.emit(text);
  }

  /** The arrow keys move the first number; with Shift by ten. */
  protected step(event: KeyboardEvent): void {
    const direction = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (direction === 0) return;
    const found = /-?(?:\d+(?:\.\d+)?|\.\d+)/.exec(this.text());
    if (!found) return;
    event.preventDefault();
    const isFine = this.property().kind === 'number' || found[0].includes('.');
    const by = direction * (event.shiftKey ? 10 : 1) * (isFine ? 0.1 : 1);
    const next = Math.round((Number(found[0]) + by) * 100) / 100;
    this.text.update((text) => text.replace(found[0], String(next)));
  }
}
