import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Prominence, Spot } from '@upper-veneer/core';
import { Button } from 'primeng/button';

const MOST_SHOWN = 6;

/** What the eye meets first: actions of the page drawn, by how much they draw it, now and as they arrived. */
@Component({
  selector: 'uv-eye-first',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>What the eye meets first <span class="uv-soft">on {{ pageName() }}</span></h2>
    @if (rows().length > 0) {
      <ol>
        @for (row of rows(); track row.element) {
          <li>
            <span class="head">
              <span class="name" [title]="row.basis">
                {{ row.name }}
                @if (row.isMain) {
                  <span class="uv-soft" i18n>· main action</span>
                }
              </span>
              <span>{{ row.share }}</span>
            </span>
            <span class="track" role="img" [attr.aria-label]="wordsOf('match.100-as-matched-as', { share: row.share, before: row.before })"><span class="uv-grain" [style.width.%]="row.share"></span><span class="was" [style.left.%]="row.before"></span></span>
          </li>
        }
      </ol>
      <p class="uv-soft" i18n>The thin mark is where it arrived. From area, difference to what lies around, and how well the label is read; our own figure.</p>
      @if (outranked(); as words) {
        <p class="warn">
          <span aria-hidden="true">◆</span>
          {{ words }}
          <p-button label="Make it the main action" i18n-label [outlined]="true" size="small" (onClick)="named.emit(rows()[0])" />
        </p>
      }
    } @else { <p class="uv-soft" i18n>This scope holds no action.</p> }
  `,
  styles: `
    :host { display: block; padding: 10px 14px 12px; border-bottom: 1px solid var(--uv-line-strong); }
    h2 { margin-bottom: 6px; font-weight: 700; }
    h2 span { font-weight: 400; }
    ol { display: grid; gap: 7px; margin: 0 0 8px; padding: 0; list-style: none; }
    li { display: grid; gap: 3px; }
    .head { display: flex; justify-content: space-between; gap: 8px; font-size: 12.5px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .track { position: relative; height: 7px; background: var(--uv-line); }
    .track .uv-grain { display: block; height: 100%; }
    .was { position: absolute; top: -2px; width: 2px; height: 11px; background: var(--uv-ink); box-shadow: 0 0 0 1px var(--uv-paper); }
    p { font-size: 12px; }
    .warn { display: grid; gap: 6px; justify-items: start; margin-top: 6px; font-size: 12.5px; color: var(--uv-look); }
  `,
})
export class EyeFirst {
  protected readonly wordsOf = wordsOf;

  readonly arrived = input.required<readonly Spoken<Prominence>[]>();
  readonly matched = input.required<readonly Spoken<Prominence>[]>();
  readonly pageId = input.required<number>();
  /** The page it is reckoned on, by name. */
  readonly pageName = input.required<string>();
  readonly mains = input<readonly Spot[]>([]);
  readonly named = output<Spot>();

  protected readonly rows = computed(() =>
    this.matched()
      .filter(({ pageId }) => pageId === this.pageId())
      .slice(0, MOST_SHOWN)
      .map(({ pageId, element, name, share, area, difference, contrast }) => ({
        pageId,
        element,
        name,
        share: Math.round(share),
        before: Math.round(
          this.arrived().find((other) => other.pageId === pageId && other.element === element)?.share ?? 0,
        ),
        isMain: this.mains().some((main) => main.pageId === pageId && main.element === element),
        basis: wordsOf('match.px-e-what-lies', {
          area: Math.round(area),
          difference: difference.toFixed(0),
          contrast: contrast.toFixed(1),
        }),
      })),
  );
  /** Said where another action than the main one comes first. */
  protected readonly outranked = computed(() => {
    const [first] = this.rows();
    const main = this.rows().find(({ isMain }) => isMain);
    return first && main && main !== first
      ? wordsOf('match.outranks-main-action', { name: first.name, name2: main.name })
      : null;
  });
}
