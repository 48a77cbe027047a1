import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { lostWords, outOfSight, sectionOf, type Hiding, type Override, type OwnCss } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import { DraftEdits } from '../../shared/site/draft-edits';
import { SiteStore } from '../../shared/site/site-store';

/** What the sheet hides, what is lost by it, and the milder way. */
@Component({
  selector: 'uv-hidden-list',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (hidden().length > 0) {
      <h2>Hidden by this sheet</h2>
      <ul>
        @for (own of hidden(); track $index) {
          <li>
            <p><span class="uv-mono">{{ own.selector }}</span> <span class="uv-soft">{{ own.lost.elements }} {{ own.lost.elements === 1 ? 'element' : 'elements' }}{{ own.media ? ', where ' + own.media : '' }}{{ own.override ? '' : ', own CSS' }}</span></p>
            <p>Lost to everyone, screen readers and the keyboard too: {{ wordsOf(own) }}.</p>
            @if (own.override; as override) { <p class="acts"><p-button label="Out of sight only" [outlined]="true" size="small" (onClick)="soften(own, override)" title="Read out and focused it still is, and comes into sight while it has the focus" /><p-button label="Show it again" [text]="true" size="small" (onClick)="show(override)" /></p> }
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host:not(:empty) { display: block; padding: 14px 16px; border-top: 1px solid var(--uv-line); font-size: 12.5px; }
    h2 { margin: 0 0 5px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    ul { margin: 0; padding: 0; list-style: none; }
    li { padding: 6px 0; border-top: 1px solid var(--uv-line); overflow-wrap: anywhere; }
    p { margin: 0 0 3px; }
    .acts { display: flex; gap: 6px; }
  `,
})
export class HiddenList {
  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  protected readonly hidden = toSignal<readonly Hiding[], readonly Hiding[]>(
    toObservable(this.#site.veneer).pipe(askEngine(inject(Engine), (_veneer, engine) => engine.hidden(), [])),
    { initialValue: [] },
  );

  protected wordsOf({ lost }: Hiding): string {
    return lostWords(lost);
  }

  protected show({ selector, id }: Override): void {
    this.#edits.change({ label: `Show ${selector} again`.slice(0, 200), put: [], drop: [id] }).subscribe();
  }

  /** Takes it out of sight alone: no override can say that, so it is own CSS of its section. */
  protected soften({ selector, media }: Hiding, override: Override): void {
    const parts = this.#site.site()?.parts ?? [];
    const partId = sectionOf(override.partId, { parts });
    const css = outOfSight(selector, media);
    const own = this.#site.ownCss().map((other) => ({ ...other, partId: sectionOf(other.partId, { parts }) }));
    const before = own.filter((other) => other.partId === partId).map((other) => other.css);
    const next: OwnCss[] = [
      ...own.filter((other) => other.partId !== partId),
      { partId, css: [...before, css].join('\n') },
    ];
    this.#edits
      .change({ label: `Take ${selector} out of sight only`.slice(0, 200), put: [], drop: [override.id], ownCss: next })
      .subscribe();
  }
}
