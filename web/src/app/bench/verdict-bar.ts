import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Repair, Spot, VerdictProgress } from '@upper-veneer/core';
import type { Judgement } from '../shared/engine/engine-api';
import { StandingMark } from '../shared/ui/standing-mark';

/** What the override in the chosen cell does over the whole site: reach, spill, contrast, states covered and left behind. */
@Component({
  selector: 'uv-verdict-bar',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (refusal()) {
      <p class="refusal" role="alert"><uv-standing standing="fails" /> {{ refusal() }}</p>
    }
    @if (progress(); as at) {
      <p class="uv-soft gloss" role="status">Checking page {{ at.page }} of {{ at.pages }}… <button type="button" class="repair" (click)="stopped.emit()">Stop</button></p>
    } @else if (judgement(); as found) {
      <ul aria-live="polite" aria-label="Verdict">
        @for (finding of found.findings; track $index) {
          <li [title]="finding.basis">
            <uv-standing [standing]="finding.standing" />
            @if (finding.spots?.length) { <button type="button" class="spots" [attr.aria-label]="finding.text + ', outline them'" (click)="shown.emit(finding.spots ?? [])">{{ finding.text }}</button> } @else { {{ finding.text }} }
            @if (finding.repair; as repair) { <button type="button" class="repair" (click)="repaired.emit(repair)">{{ repair.label }}</button> }
          </li>
        }
      </ul>
      <p class="uv-soft gloss">{{ found.gloss }}</p>
    } @else if (!refusal()) {
      <p class="uv-soft gloss">No override here yet. A swatch, a shade or a typed colour makes one.</p>
    }
  `,
  styles: `
    :host { display: block; padding: 7px 16px; background: var(--uv-paper); border-top: 1px solid var(--uv-line-strong); max-height: 132px; overflow-y: auto; }
    ul { display: flex; flex-wrap: wrap; gap: 2px 14px; margin: 0; padding: 0; list-style: none; }
    .gloss { font-size: 12px; }
    .refusal { color: var(--uv-ink); }
    .spots { margin-left: 3px; padding: 0; border: 0; background: none; color: inherit; font: inherit; text-decoration: underline; cursor: pointer; }
    .repair { margin-left: 4px; padding: 0 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-panel); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .repair:hover { background: var(--uv-bar); }
  `,
})
export class VerdictBar {
  readonly judgement = input.required<Judgement | null>();
  readonly refusal = input('');
  /** How far the check is, where it takes its time. */
  readonly progress = input<VerdictProgress | null>(null);
  readonly stopped = output();
  /** Emits the elements a finding is about, to be outlined. */
  readonly shown = output<readonly Spot[]>();
  readonly repaired = output<Repair>();
}
