import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Pair } from '@upper-veneer/core';
import { StandingMark } from '../shared/ui/standing-mark';

/** Contrast of every pair of roles that can meet, drawn as it would look. */
@Component({
  selector: 'uv-pair-table',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2>Every pair that can meet</h2><span class="uv-soft">text 4.5 : 1 · edges, rings and large text 3 : 1</span></header>
    @if (grounds().length > 0) {
      <table>
        <thead><tr><td></td>@for (ground of grounds(); track ground) { <th scope="col">{{ ground }}</th> }</tr></thead>
        <tbody>
          @for (row of rows(); track row.text) {
            <tr>
              <th scope="row">{{ row.text }}</th>
              @for (pair of row.pairs; track $index) {
                <td [title]="pair ? titleOf(pair) : ''">
                  @if (pair) {
                    <span class="sample" [style.background]="pair.groundHex" [style.color]="pair.textHex">{{ pair.text === 'line' || pair.text === 'ring' ? '▬' : 'Aa' }}</span>
                    @if (pair.level === 'same') { <span class="uv-soft">same</span> } @else { <span class="ratio">{{ shown(pair.ratio) }}</span><uv-standing [standing]="pair.standing" /> }
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="uv-soft">Fill a role that is read and one that lies under it, and their pairs stand here.</p>
    }
  `,
  styles: `
    header { display: flex; justify-content: space-between; align-items: baseline; margin-bottom: 6px; }
    h2 { font-weight: 700; }
    header span { font-size: 12px; }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; background: var(--uv-paper); }
    th, td { height: 27px; padding: 0 8px; border: 1px solid var(--uv-line); text-align: left; font-weight: 400; font-size: 12.5px; white-space: nowrap; }
    thead th, th[scope='row'] { color: var(--uv-soft); }
    th[scope='row'], thead td { width: 84px; }
    .sample { display: inline-block; width: 34px; margin-right: 8px; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); text-align: center; font-weight: 700; }
    .ratio { margin-right: 6px; }
  `,
})
export class PairTable {
  readonly pairs = input.required<readonly Pair[]>();

  protected readonly grounds = computed(() => [...new Set(this.pairs().map(({ ground }) => ground))]);
  protected readonly rows = computed(() => [...new Set(this.pairs().map(({ text }) => text))].map((text) => ({
    text: text.replace('-', ' '),
    pairs: this.grounds().map((ground) => this.pairs().find((pair) => pair.text === text && pair.ground === ground) ?? null),
  })));

  /** Rounded down: what misses 4.5 must not read as 4.5. */
  protected shown(ratio: number): string {
    return (Math.floor(ratio * 10) / 10).toFixed(1);
  }

  protected titleOf(pair: Pair): string {
    const remedy = pair.remedy ? ` Nearest shade that passes: ${pair.remedy.hex}, ΔE2000 ${pair.remedy.moved.toFixed(1)} away.` : '';
    return `${pair.textHex} on ${pair.groundHex}: ${pair.ratio.toFixed(2)} : 1 by WCAG 2.2, ${pair.level}.${remedy}`;
  }
}
