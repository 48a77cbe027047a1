import { figure, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { Reach, ReachCount } from '@upper-veneer/core';
import { SelectButton } from 'primeng/selectbutton';

const LABELS: Readonly<Record<Reach, string>> = {
  one: wordsOf('bench.this'),
  alike: wordsOf('bench.all-alike'),
  group: wordsOf('bench.this-group'),
  everywhere: wordsOf('bench.everywhere'),
};

/** How far an override is to reach, with what each reach takes in over all pages. */
@Component({
  selector: 'uv-reach-switch',
  imports: [FormsModule, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-selectbutton [options]="options()" optionValue="reach" [ngModel]="reach()" (ngModelChange)="chosen.emit($event)" [allowEmpty]="false" aria-label="Reach" i18n-aria-label>
      <ng-template #item let-option><span class="option"><strong>{{ option.label }}</strong><span>{{ option.count }}</span></span></ng-template>
    </p-selectbutton>
  `,
  styles: `
    :host { display: block; }
    :host ::ng-deep .p-selectbutton { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, auto); border: 1px solid var(--uv-line-strong); border-radius: 3px; }
    :host ::ng-deep .p-togglebutton { display: block; padding: 4px 7px; border: 0; border-radius: 0; background: var(--uv-paper); color: var(--uv-ink); text-align: left; }
    :host ::ng-deep .p-togglebutton + .p-togglebutton { border-left: 1px solid var(--uv-line); }
    :host ::ng-deep .p-selectbutton > p-togglebutton:nth-child(n + 2) .p-togglebutton { border-left: 1px solid var(--uv-line); }
    :host ::ng-deep .p-togglebutton-checked { background: var(--uv-black); color: var(--uv-on-black); }
    :host ::ng-deep .p-togglebutton-content { display: block; padding: 0; background: none; box-shadow: none; }
    .option { display: grid; font-size: 12.5px; line-height: 1.3; }
    .option span { font-size: 12px; font-weight: 400; white-space: nowrap; letter-spacing: -0.01em; }
    strong { font-weight: 700; }
  `,
})
export class ReachSwitch {
  readonly reach = input.required<Reach>();
  readonly counts = input.required<readonly Spoken<ReachCount>[]>();
  /** What "everywhere" gathers: button, link, field, heading, paragraph; empty for anything else. */
  readonly kind = input('');
  readonly chosen = output<Reach>();

  protected readonly options = computed(() =>
    this.counts().map((count) => ({ reach: count.reach, label: LABELS[count.reach], count: this.#words(count) })),
  );

  #words({ reach, elements, pages }: Spoken<ReachCount>): string {
    const onPages = wordsOf('bench.pages-counted', { pages });
    if (reach === 'one' && elements === 1) return wordsOf('bench.one-element');
    // Four of them leave no room for words.
    if (this.counts().length > 3) return `${figure(elements)}, ${onPages}`;
    if (reach !== 'everywhere' || this.kind() === '') return wordsOf('bench.elements-on-pages', { elements, onPages });
    return wordsOf('bench.kind-count', { kind: this.kind(), elements, onPages });
  }
}
