import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { PropertyView } from '../shared/engine/match-api';
import { ColorChip } from '../shared/ui/color-chip';
import { MATCH_WIDTH } from './match-store';

/** Custom properties of the theme that feed the scope: each can be overridden itself, and all that follows it is named first. */
@Component({
  selector: 'uv-theme-properties',
  imports: [ColorChip, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown().length > 0) {
      <h2 i18n>Properties of the theme <span class="uv-soft">{{ rowIds().length > 0 ? wordsOf('match.behind-what-chosen') : wordsOf('match.feed-this-scope-px', { width: width }) }}</span></h2>
      <ul>
        @for (property of shown(); track property.id) {
          <li (pointerenter)="lit.emit(property.elements)" (pointerleave)="lit.emit([])">
            <label [title]="wordsOf('match.line', { selector: property.selector, sheet: property.sheet, line: property.line })">
              <input
                type="checkbox" [checked]="property.isTaken" [disabled]="property.value === null"
                [attr.aria-label]="wordsOf('match.override-itself', { name: property.name })" (change)="flip(property)"
                (focus)="lit.emit(property.elements)" (blur)="lit.emit([])"
              />
              <uv-color-chip [color]="property.hex" /><span aria-hidden="true">→</span><uv-color-chip [color]="property.css" />
              <span class="uv-mono name">{{ property.name }}</span>
            </label>
            <p class="uv-soft">{{ toldOf(property) }}</p>
            @if (property.outside > 0) {
              <details><summary i18n>{{ property.outside }} outside the scope would change too</summary>
                <ul class="outsiders">
                  @for (outsider of property.outsiders; track $index) {
                    <li>
                      <span>{{ outsider.words }}</span>
                      <a [routerLink]="'/bench'" [queryParams]="spotOf(outsider)" i18n>Bench</a>
                    </li>
                  }
                </ul>
                <p class="uv-soft">{{ property.moreOutsiders > 0 ? wordsOf('match.more-alike-ones-named', { moreOutsiders: property.moreOutsiders }) : wordsOf('match.alike-ones-named-once') }}</p>
              </details>
            }
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host:not(:empty) { display: block; padding: 10px 14px 12px; border-bottom: 1px solid var(--uv-line-strong); }
    h2 { margin-bottom: 4px; font-weight: 700; }
    h2 span { font-weight: 400; }
    ul { margin: 0; padding: 0; list-style: none; }
    li { padding: 4px 0; }
    label { display: flex; align-items: center; gap: 6px; min-height: 24px; font-size: 12.5px; }
    input { margin: 0; accent-color: var(--uv-black); }
    uv-color-chip { flex: none; width: 20px; height: 16px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    p, summary { font-size: 12px; }
    summary { min-height: 24px; color: var(--uv-look); cursor: pointer; }
    .outsiders li { display: flex; align-items: center; justify-content: space-between; gap: 8px; padding: 1px 0; font-size: 12.5px; }
    .outsiders span { overflow-wrap: anywhere; }
    a { display: inline-flex; align-items: center; min-height: 24px; color: inherit; }
  `,
})
export class ThemeProperties {
  protected readonly wordsOf = wordsOf;

  readonly properties = input.required<readonly Spoken<PropertyView>[]>();
  /** Rows chosen: properties that feed none of them are left out. */
  readonly rowIds = input<readonly string[]>([]);
  /** What was chosen, whether it is proposed for already or not; `null` where nothing was. */
  readonly chosen = input<readonly string[] | null>(null);
  /** Emits the properties that are overridden themselves. */
  readonly taken = output<readonly string[]>();
  /** Emits elements that are to be lit. */
  readonly lit = output<readonly number[]>();

  protected readonly width = MATCH_WIDTH;
  protected readonly shown = computed(() => {
    const chosen = this.rowIds();
    return chosen.length === 0
      ? this.properties()
      : this.properties().filter(({ rowIds }) => rowIds.some((id) => chosen.includes(id)));
  });

  protected flip({ id, isTaken }: Spoken<PropertyView>): void {
    const taken =
      this.chosen() ??
      this.properties()
        .filter((property) => property.isTaken)
        .map((property) => property.id);
    this.taken.emit(isTaken ? taken.filter((other) => other !== id) : [...taken, id]);
  }

  protected toldOf({ value, words, agreeing, others, isShorter }: Spoken<PropertyView>): string {
    if (!value) return wordsOf('match.feeds-place-places-are', { others });
    const rest = others === 0 ? '' : wordsOf('match.more-become-something-else', { others });
    return wordsOf('match.shorter-way-place-becomes', { isShorter: isShorter ? 'yes' : 'no', agreeing, words, rest });
  }

  protected spotOf({ spot }: Spoken<PropertyView>['outsiders'][number]): Readonly<Record<string, string | number>> {
    return {
      page: spot.pageId,
      element: spot.element,
      pseudo: spot.pseudo,
      property: spot.property,
      state: spot.state,
    };
  }
}
