import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Judgement } from '../shared/engine/engine-api';
import { StandingMark } from '../shared/ui/standing-mark';

/** What the override in the chosen cell does where it stands: reach, spill, contrast, states left behind. */
@Component({
  selector: 'uv-verdict-bar',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (refusal()) {
      <p class="refusal" role="alert"><uv-standing standing="fails" /> {{ refusal() }}</p>
    } @else if (judgement(); as found) {
      <ul aria-live="polite" aria-label="Verdict">@for (finding of found.findings; track $index) { <li [title]="finding.basis"><uv-standing [standing]="finding.standing" /> {{ finding.text }}</li> }</ul>
      <p class="uv-soft gloss">{{ found.gloss }}</p>
    } @else {
      <p class="uv-soft gloss">No override here yet. A swatch, a shade or a typed colour makes one.</p>
    }
  `,
  styles: `
    :host { display: block; padding: 7px 16px; background: var(--uv-paper); border-top: 1px solid var(--uv-line-strong); }
    ul { display: flex; flex-wrap: wrap; gap: 2px 14px; margin: 0; padding: 0; list-style: none; }
    .gloss { font-size: 12px; }
    .refusal { color: var(--uv-ink); }
  `,
})
export class VerdictBar {
  readonly judgement = input.required<Judgement | null>();
  readonly refusal = input('');
}
