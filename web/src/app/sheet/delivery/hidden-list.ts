import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { lostWords, type Hiding, type Override } from '@upper-veneer/core';
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
    @if (missed() !== '') { <p role="alert">▲ {{ missed() }}</p> }
    @if (hidden().length > 0) {
      <h2 i18n>Hidden by this sheet</h2>
      <ul>
        @for (own of hidden(); track $index) {
          <li>
            <p><span class="uv-mono">{{ own.selector }}</span>&ngsp;<span class="uv-soft" i18n>{{ own.lost.elements }} {own.lost.elements, plural, =1 {element} other {elements}}{{ own.media ? wordsOf('sheet.where', { media: own.media }) : '' }}{{ own.override ? '' : wordsOf('sheet.own-css') }}</span></p>
            <p i18n>Lost to everyone, screen readers and the keyboard too: {{ toldOf(own) }}.</p>
            @if (own.override; as override) {
              <p class="acts">
                <p-button
                  label="Out of sight only" i18n-label [outlined]="true" size="small" (onClick)="soften(own, override)"
                  title="Read out and focused it still is, and comes into sight while it has the focus" i18n-title />
                <p-button label="Show it again" i18n-label [text]="true" size="small" (onClick)="show(override)" />
              </p>
            }
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
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #engine = inject(Engine);
  /** What was to go out of sight and has not. */
  protected readonly missed = signal('');
  protected readonly hidden = toSignal<readonly Hiding[], readonly Hiding[]>(
    toObservable(this.#site.veneer).pipe(askEngine(this.#engine, (_veneer, engine) => engine.hidden(), [])),
    { initialValue: [] },
  );

  protected toldOf({ lost }: Hiding): string {
    return lostWords(lost);
  }

  protected show({ selector, id }: Override): void {
    this.#edits
      .change({ label: wordsOf('sheet.show-again', { selector }).slice(0, 200), put: [], drop: [id] })
      .subscribe();
  }

  /** Takes it out of sight alone: no override can say that, so it is own CSS of its section. */
  protected async soften({ selector, media }: Hiding, override: Override): Promise<void> {
    this.missed.set('');
    try {
      const { ownCss, missed, unseen } = await this.#engine.remote.softened({ selector, media }, override);
      const label = wordsOf('sheet.take-out-sight-only', { selector }).slice(0, 200);
      this.#edits.change({ label, put: [], drop: [override.id], ownCss }).subscribe(() => {
        const elements = wordsOf('sheet.one-element-elements', { missed });
        const notes = [
          missed > 0 ? wordsOf('sheet.still-can-be-seen', { elements, selector }) : '',
          unseen.length > 0 ? wordsOf('sheet.not-looked-for', { selector, unseen }) : '',
        ];
        this.missed.set(notes.filter((note) => note !== '').join(' '));
      });
    } catch (error) {
      this.#engine.tell(error);
    }
  }
}
