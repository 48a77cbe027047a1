import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Override, RuleDifference } from '@upper-veneer/core';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import type { PlacePicture } from '../../shared/engine/place-picture';

import type { FramedPage } from '../../shared/frame/framed-page';
import { ScopePicture } from '../../shared/frame/scope-picture';
import { ProofStore } from '../../shared/proof/proof-store';
import { SiteStore } from '../../shared/site/site-store';

const KINDS: Readonly<Record<RuleDifference['kind'], string>> = {
  come: wordsOf('sheet.new-mark'),
  gone: wordsOf('sheet.gone'),
  changed: wordsOf('sheet.changed'),
};
const WIDTH = 1280;

/** Where a rule is drawn, with both sheets as a frame takes them. */
interface Drawn {
  readonly picture: PlacePicture;
  readonly before: string;
  readonly after: string;
}

/** Rules in which two sheets differ, by what they say, and what the chosen one comes to on the page, before and after. */
@Component({
  selector: 'uv-differing-rules',
  imports: [ScopePicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!isKnown()) {
      <p class="uv-soft none" role="status" i18n>Comparing…</p>
    } @else if (rules().length === 0) {
      <div class="same"><h2 i18n>Nothing differs</h2><p class="uv-soft" i18n>Both sheets say the same.</p></div>
    } @else {
      <ul class="rules uv-scroll" aria-label="Rules that differ" i18n-aria-label>
        @for (rule of rules(); track $index) {
          <li>
            <button type="button" class="rule" [attr.aria-pressed]="$index === at()" [class.chosen]="$index === at()" (click)="at.set($index)" (focus)="at.set($index)">
              <span class="kind uv-soft">{{ kindOf(rule) }}</span>
              <span class="uv-mono">
                @for (around of rule.within; track $index) { <span class="line uv-soft">{{ around }}</span> }
                <span class="line selector">{{ rule.selector }}</span>
                @for (line of rule.gone; track line) { <span class="line gone"><span aria-hidden="true">−</span> {{ line }}</span> }
                @for (line of rule.come; track line) { <span class="line come"><span aria-hidden="true">+</span> {{ line }}</span> }
              </span>
            </button>
          </li>
        }
      </ul>
      @if (drawn(); as now) {
        <div class="pictures">
          <uv-scope-picture [heading]="beforeLabel()" [page]="pageWith(now, now.before)" [width]="now.picture.width" [element]="now.picture.element" [forced]="now.picture.forced" [lit]="[now.picture.element]" />
          <uv-scope-picture [heading]="afterLabel()" [page]="pageWith(now, now.after)" [width]="now.picture.width" [element]="now.picture.element" [forced]="now.picture.forced" [lit]="[now.picture.element]" />
        </div>
      } @else { <p class="uv-soft none" i18n>No override of either side stands behind this rule, so there is no place to show.</p> }
    }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); min-width: 0; min-height: 0; overflow: hidden; background: var(--uv-paper); }
    .rules { margin: 0; padding: 0; list-style: none; }
    .line { display: block; }
    .rule { display: grid; width: 100%; border-width: 0 0 1px; border-style: solid; background: none; color: inherit; text-align: left; grid-template-columns: 62px minmax(0, 1fr); padding: 7px 12px 7px 8px; border-color: var(--uv-line); border-left: 4px solid transparent; font-size: 12.5px; overflow-wrap: anywhere; cursor: pointer; }
    .rule.chosen { border-left-color: var(--uv-ink); background: var(--uv-panel); }
    .selector { font-weight: 600; }
    .gone { text-decoration: line-through; color: var(--uv-soft); }
    .come { font-weight: 600; }
    .pictures { display: grid; grid-template-rows: 1fr 1fr; min-height: 0; background: var(--uv-mat); border-left: 1px solid var(--uv-line-strong); }
    .same { display: grid; grid-column: 1 / -1; place-content: center; gap: 6px; text-align: center; }
    .same h2 { font-size: 17px; font-weight: 700; }
    .none { padding: 16px; }
    @media (max-width: 900px) { :host { grid-template-columns: minmax(0, 1fr); } .pictures { grid-template-rows: 260px 260px; border-left: 0; } }
  `,
})
export class DifferingRules {
  readonly before = input.required<string>();
  readonly after = input.required<string>();
  readonly beforeLabel = input.required<string>();
  readonly afterLabel = input.required<string>();
  /** Overrides of either side, by which a rule's place is known. */
  readonly overrides = input.required<readonly Override[]>();

  readonly #engine = inject(Engine);
  readonly #site = inject(SiteStore);
  readonly #proof = inject(ProofStore);
  readonly #sheets = computed(() => [this.before(), this.after()] as const);
  readonly #found = toSignal(
    toObservable(this.#sheets).pipe(
      askEngine<readonly [string, string], readonly RuleDifference[] | null>(
        this.#engine,
        ([before, after], engine) => engine.sheetDifference(before, after),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly isKnown = computed(() => this.#found() !== null);
  protected readonly rules = computed(() => this.#found() ?? []);
  protected readonly at = linkedSignal({ source: () => this.rules(), computation: () => 0 });
  /** What is to be drawn: the override behind the chosen rule, on a page that is still there. */
  readonly #asked = computed(() => {
    const rule = this.rules().at(this.at());
    const pages = new Set(this.#site.site()?.pages.map(({ id }) => id));
    const selectors = rule?.selector.split(',').map((one) => one.trim()) ?? [];
    const isSame = (selector: string): boolean => selectors.some((one) => plain(one) === plain(selector));
    const override = this.overrides().find((own) => isSame(own.selector) && pages.has(own.pageId));
    return override ? { override, before: this.before(), after: this.after() } : null;
  });
  protected readonly drawn = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ override: Override; before: string; after: string } | null, Drawn | null>(
        this.#engine,
        async (asked, engine) => {
          if (!asked) return null;
          const { pageId, element, partId, state } = asked.override;
          const { parent = null } = asked.override;
          const [rest, forced, before, after] = await Promise.all([
            engine.spotPicture({ pageId, element, partId }, WIDTH),
            engine.forcedStates({ pageId, element, pseudo: '' }, { state, parent }),
            engine.framed(asked.before),
            engine.framed(asked.after),
          ]);
          return { picture: { ...rest, forced }, before, after };
        },
        null,
      ),
    ),
    { initialValue: null },
  );

  protected kindOf({ kind }: RuleDifference): string {
    return KINDS[kind];
  }

  protected pageWith({ picture }: Drawn, frameCss: string): FramedPage {
    return this.#proof.pictured(picture, frameCss);
  }
}

/** A selector without its blanks, which both sides may write otherwise. */
function plain(selector: string): string {
  return selector.replaceAll(/\s+/g, '');
}
