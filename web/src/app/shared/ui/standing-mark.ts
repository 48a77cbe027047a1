import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Standing } from '@upper-veneer/core';

const SIGNS: Readonly<Record<Standing, { readonly sign: string; readonly word: string }>> = {
  holds: { sign: '●', word: wordsOf('standing.holds') },
  look: { sign: '◆', word: wordsOf('screen.look-this') },
  fails: { sign: '▲', word: wordsOf('standing.fails') },
};

/** A verdict's sign, with its word for those who do not see it. */
@Component({
  selector: 'uv-standing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span aria-hidden="true">{{ sign().sign }}</span><span class="uv-hidden">{{ sign().word }}: </span>`,
  host: { '[class]': 'standing()' },
  styles: `
    :host { font-size: .85em; }
    :host(.holds) { color: var(--uv-holds); }
    :host(.look) { color: var(--uv-look); }
    :host(.fails) { color: var(--uv-fails); }
  `,
})
export class StandingMark {
  readonly standing = input.required<Standing>();
  protected readonly sign = computed(() => SIGNS[this.standing()]);
}
