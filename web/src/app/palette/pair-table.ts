import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Pair, RoleName } from '@upper-veneer/core';
import { levelWords } from './level-words';
import { InTurn } from '../shared/drawing/in-turn';
import { StandingMark } from '../shared/ui/standing-mark';
import { roleWords } from '../shared/site/role-words';

/** Contrast of every pair of roles that can meet, drawn as it would look. */
@Component({
  selector: 'uv-pair-table',
  imports: [InTurn, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>Every pair that can meet</h2><span class="uv-soft" i18n>text 4.5 : 1 · edges, rings and large text 3 : 1</span></header>
    @if (grounds().length > 0) {
      <div class="wide" role="region" tabindex="0" aria-label="Pairs of roles" i18n-aria-label>
      <table>
        <thead><tr><td></td>@for (ground of grounds(); track ground) { <th scope="col">{{ toldOf(ground) }}</th> }</tr></thead>
        <tbody>
          @for (row of rows(); track row.text) {
            <tr *uvInTurn>
              <th scope="row">{{ row.text }}</th>
              @for (pair of row.pairs; track $index) {
                <td [class.unmeant]="pair && !pair.isMeant">
                  @if (pair) {
                    <button type="button" [class.current]="pair === chosen()" [attr.aria-pressed]="pair === chosen()" [title]="titleOf(pair)" (click)="chosenKey.set(pair.text + '/' + pair.ground)">
                      <span class="sample" [style.background]="pair.groundHex" [style.color]="pair.textHex" [attr.data-sample]="pair.text === 'line' || pair.text === 'ring' ? '▬' : 'Aa'"></span>
                      @if (pair.level === 'same') {
                        <span class="uv-soft" i18n>same</span>
                      } @else {
                        <span class="ratio">{{ shown(pair.ratio) }}</span>
                        <uv-standing [standing]="pair.standing" />
                        <span class="level">{{ levelWords(pair.level) }}</span>
                      }
                    </button>
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
      </div>
      @if (chosen(); as pair) {
        <p class="remedy" role="status"><strong i18n>{{ toldOf(pair.text) }} on {{ toldOf(pair.ground) }}</strong> {{ pair.ratio.toFixed(2) }} : 1, {{ levelWords(pair.level) }}{{ pair.isMeant ? '' : wordsOf('palette.not-meant-meet') }}.
          @if (pair.remedy; as remedy) {
            <ng-container i18n> Nearest shade that passes: <i [style.background]="remedy.hex"></i><span class="uv-mono">{{ remedy.hex }}</span>, ΔE {{ remedy.moved.toFixed(1) }} away. </ng-container>
            <button
              type="button" class="act" (click)="remedied.emit({ role: pair.text, hex: remedy.hex })"
              i18n>Fill {{ toldOf(pair.text) }} with it</button>
          } @else if (pair.standing !== 'holds' && pair.level !== 'same') {
            <ng-container i18n> No shade of it passes there. </ng-container>
          }
        </p>
      } @else {
        <p
          class="remedy uv-soft"
          i18n>Pairs that are meant to meet stand out. Press one for its exact ratio and the nearest shade that passes.</p>
      }
    } @else {
      <p class="uv-soft" i18n>Fill a role that is read and one that lies under it, and their pairs stand here.</p>
    }
  `,
  styles: `
    header { display: flex; justify-content: space-between; align-items: baseline; margin-bottom: 6px; }
    h2 { font-weight: 700; }
    header span { font-size: 12px; }
    .wide { position: relative; overflow-x: auto; }
    @media (max-width: 900px) { table { min-width: 600px; } header { flex-wrap: wrap; } }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; background: var(--uv-paper); }
    th, td { height: 27px; padding: 0 7px; border: 1px solid var(--uv-line); text-align: left; font-weight: 400; font-size: 12.5px; white-space: nowrap; }
    thead th, th[scope='row'] { color: var(--uv-soft); }
    th[scope='row'], thead td { width: 76px; }
    td:has(button) { padding: 0; }
    button { display: flex; align-items: center; width: 100%; height: 26px; padding: 0 5px; border: 0; border-radius: 0; background: none; text-align: left; cursor: pointer; }
    button:hover, button.current { background: var(--uv-panel); }
    button.current { outline: 2px solid var(--uv-ink); outline-offset: -2px; }
    .sample::before { content: attr(data-sample); }
    .sample { flex: none; width: 25px; margin-right: 5px; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); text-align: center; font-weight: 700; }
    .ratio { margin-right: 4px; }
    .level { margin-left: 3px; font-size: 11px; color: var(--uv-soft); overflow: hidden; text-overflow: ellipsis; }
    .unmeant { background: var(--uv-bar); }
    .unmeant uv-standing { color: var(--uv-soft); }
    .remedy { display: flex; flex-wrap: wrap; align-items: center; gap: 0 5px; min-height: 26px; font-size: 12.5px; }
    .remedy i { width: 18px; height: 14px; border: 1px solid var(--uv-line-strong); }
    .remedy strong { text-transform: none; }
    .act { width: auto; height: 22px; padding: 0 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); }
  `,
})
export class PairTable {
  protected readonly wordsOf = wordsOf;

  readonly pairs = input.required<readonly Pair[]>();

  /** Emits a role and the colour that is to fill it. */
  readonly remedied = output<{ readonly role: RoleName; readonly hex: string }>();

  protected readonly chosenKey = signal('');
  protected readonly chosen = computed(
    () => this.pairs().find((pair) => `${pair.text}/${pair.ground}` === this.chosenKey()) ?? null,
  );
  protected readonly grounds = computed(() => [...new Set(this.pairs().map(({ ground }) => ground))]);
  protected readonly rows = computed(() =>
    [...new Set(this.pairs().map(({ text }) => text))].map((text) => ({
      text: roleWords(text),
      pairs: this.grounds().map(
        (ground) => this.pairs().find((pair) => pair.text === text && pair.ground === ground) ?? null,
      ),
    })),
  );

  protected toldOf(role: RoleName): string {
    return roleWords(role);
  }

  /** Rounded down: what misses 4.5 must not read as 4.5. */
  protected shown(ratio: number): string {
    return (Math.floor(ratio * 10) / 10).toFixed(1);
  }

  protected readonly levelWords = levelWords;

  protected titleOf(pair: Pair): string {
    const remedy = pair.remedy
      ? wordsOf('palette.nearest-shade-passes-e2000', { hex: pair.remedy.hex, moved: pair.remedy.moved.toFixed(1) })
      : '';
    return wordsOf('palette.1-wcag-2-2', {
      textHex: pair.textHex,
      groundHex: pair.groundHex,
      ratio: pair.ratio.toFixed(2),
      level: levelWords(pair.level),
      remedy,
    });
  }
}
