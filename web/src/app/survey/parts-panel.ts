import { PART_KIND_WORDS } from '../shared/site/part-kind-words';
import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { OPENER_ACTS, PART_KINDS, type PartsRequest, type OpenerBody } from '@upper-veneer/contract';
import type { PartProposal, Reachability } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { InTurn } from '../shared/drawing/in-turn';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { ACT_WORDS } from '../shared/site/act-words';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { withMerge, withPart, withProposals, withoutPart } from '../shared/site/part-edits';

const REACH_WORDS: Readonly<Record<Reachability, string>> = {
  'in page': '',
  shadow: wordsOf('survey.shadow-root'),
  framed: wordsOf('survey.framed'),
};

/** The parts of the site: named, merged, given a way to open; and those its structure suggests besides. */
@Component({
  selector: 'uv-parts-panel',
  imports: [Button, FormsModule, InTurn, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', '[attr.aria-label]': 'name', tabindex: '0' },
  template: `
    <table>
      <thead><tr><th scope="col" class="name" i18n>Part</th><th scope="col" class="kind" i18n>Kind</th><th scope="col" i18n>Selector</th><th scope="col" class="number" i18n>Pages</th><th scope="col" class="acts"><span class="uv-hidden" i18n>Acts</span></th></tr></thead>
      <tbody>
        @for (part of rows(); track part.id) {
          <ng-container *uvInTurn>
            <tr>
              <td>
                <input
                  pInputText pSize="small" maxlength="60" autocomplete="off" [value]="part.name" #name
                  [attr.aria-label]="wordsOf('survey.name-part', { name: part.name })" (change)="rename(part.id, name)"
                />
              </td>
              <td>
                <p-select
                  [options]="kinds" optionLabel="label" optionValue="kind" [ngModel]="part.kind" size="small"
                  [ariaLabel]="wordsOf('survey.kind', { name: part.name })" (ngModelChange)="edit(part.id, { kind: $event })"
                />
              </td>
              <td class="cut">
                <span class="uv-mono" [title]="part.selector">{{ part.selector }}</span>
                <span class="uv-soft">{{ part.reach }}</span>
              </td>
              <td class="number">{{ part.pages }}</td>
              <td class="acts">
                <p-button
                  [label]="shown() === part.id ? wordsOf('survey.done') : wordsOf('survey.more-act')" [text]="true" size="small"
                  [ariaLabel]="wordsOf('survey.done-with-more', { case: shown() === part.id ? 'yes' : 'no', name: part.name })"
                  (onClick)="show(part.id)"
                />
              </td>
            </tr>
            @if (shown() === part.id) {
              <tr class="more"><td colspan="5">
                <form class="line" (ngSubmit)="edit(part.id, { selector: selector().trim() })">
                  <label [for]="'uv-selector-' + part.id" i18n>Selector</label>
                  <input
                    pInputText pSize="small" class="uv-mono grow" [id]="'uv-selector-' + part.id" name="selector"
                    autocomplete="off" spellcheck="false" [ngModel]="selector()" (ngModelChange)="selector.set($event)"
                  />
                  <p-button
                    type="submit" label="Use" i18n-label [outlined]="true" size="small"
                    [disabled]="selector().trim() === '' || selector().trim() === part.selector"
                  />
                </form>
                @for (opener of part.openers; track $index) {
                  <div class="line">
                    <span i18n>Opens when <code class="uv-mono">{{ opener.selector }}</code> {{ actWords[opener.act] }} <code class="uv-mono">{{ opener.name }}{{ opener.act === 'set-attribute' ? '="' + opener.value + '"' : '' }}</code></span>
                    <p-button
                      label="Drop" i18n-label [text]="true" size="small"
                      (onClick)="edit(part.id, { openers: part.openers.toSpliced($index, 1) })"
                    />
                  </div>
                }
                <form class="line" (ngSubmit)="addOpener(part.id)">
                  <label [for]="'uv-opener-' + part.id" i18n>Opens when</label>
                  <input
                    pInputText pSize="small" class="uv-mono" [id]="'uv-opener-' + part.id" name="of" placeholder="selector"
                    autocomplete="off" spellcheck="false" [ngModel]="opener().selector"
                    (ngModelChange)="setOpener({ selector: $event })"
                  />
                  <p-select
                    [options]="acts" optionLabel="label" optionValue="act" name="act" [ngModel]="opener().act"
                    (ngModelChange)="setOpener({ act: $event })" size="small" ariaLabel="What opens it" i18n-ariaLabel
                  />
                  <input
                    pInputText pSize="small" class="uv-mono" name="name" placeholder="name" aria-label="Class or attribute"
                    i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="opener().name"
                    (ngModelChange)="setOpener({ name: $event })"
                  />
                  @if (opener().act === 'set-attribute') {
                    <input
                      pInputText pSize="small" class="uv-mono" name="value" placeholder="value" aria-label="Value"
                      i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="opener().value"
                      (ngModelChange)="setOpener({ value: $event })"
                    />
                  }
                  <p-button
                    type="submit" label="Add" i18n-label [outlined]="true" size="small"
                    [disabled]="opener().selector.trim() === '' || opener().name.trim() === ''"
                  />
                </form>
                <div class="line">
                  <span><ng-container i18n>Merge into </ng-container><p-select
                    [options]="others(part.id)" optionLabel="name" optionValue="id" [ngModel]="null" placeholder="choose a part"
                    i18n-placeholder size="small" [ariaLabel]="wordsOf('survey.part-merged-into', { name: part.name })"
                    (ngModelChange)="merge(part.id, $event)"
                  /></span>
                  <p-button label="Take away" i18n-label [text]="true" size="small" (onClick)="remove(part.id)" />
                </div>
              </td></tr>
            }
          </ng-container>
        } @empty { <tr><td colspan="5" class="empty" i18n>No part yet. What the pages’ structure suggests stands below.</td></tr> }
      </tbody>
    </table>
    @if (fresh().length > 0) {
      <div class="suggested"><h2 i18n>Suggested by the structure of the pages</h2><p-button [label]="wordsOf('survey.take-all', { fresh: fresh().length })" [outlined]="true" size="small" (onClick)="take(fresh())" /></div>
      <table><thead class="uv-hidden"><tr><th scope="col" i18n>Part</th><th scope="col" i18n>Selector</th><th scope="col" i18n>Why</th><th scope="col" i18n>Pages</th><th scope="col" i18n>Acts</th></tr></thead><tbody>
        @for (proposal of fresh(); track proposal.selector) {
          <tr><td translate="no">{{ proposal.name }}</td><td class="cut"><span class="uv-mono" [title]="proposal.selector">{{ proposal.selector }}</span></td><td class="uv-soft">{{ proposal.because }}</td><td class="number">{{ proposal.pageIds.length }}</td><td class="acts"><p-button label="Take" i18n-label [text]="true" size="small" [ariaLabel]="wordsOf('survey.take', { name: proposal.name })" (onClick)="take([proposal])" /></td></tr>
        }
      </tbody></table>
    }
  `,
  styleUrl: './facts-table.scss',
  styles: `
    td input { width: 100%; }
    td p-select { width: 182px; }
    .name { width: 176px; }
    .kind { width: 200px; }
    .acts { width: 70px; padding: 0 4px; overflow: visible; text-align: right; }
    .more td { padding: 8px 12px; background: var(--uv-panel); }
    .line { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; margin: 4px 0; }
    .line input { width: 130px; }
    .line .grow { flex: 1; }
    .suggested { display: flex; align-items: center; justify-content: space-between; padding: 10px; }
    h2 { font-weight: 700; }
  `,
})
export class PartsPanel {
  protected readonly name = wordsOf('survey.parts');
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  readonly #engine = inject(Engine);

  protected readonly kinds = PART_KINDS.map((kind) => ({ kind, label: PART_KIND_WORDS[kind] }));
  protected readonly acts = OPENER_ACTS.map((act) => ({ act, label: ACT_WORDS[act] }));
  protected readonly actWords = ACT_WORDS;
  protected readonly shown = signal<number | null>(null);
  protected readonly selector = signal('');
  protected readonly opener = signal<OpenerBody>({ selector: '', act: 'add-class', name: '', value: '' });

  readonly #parts = computed(() => this.site.site()?.parts ?? []);
  readonly #reachabilities = toSignal<
    ReadonlyMap<number, { readonly reachability: Reachability; readonly pages: number }>,
    ReadonlyMap<number, { readonly reachability: Reachability; readonly pages: number }>
  >(
    toObservable(this.site.site).pipe(
      askEngine(
        this.#engine,
        (
          site,
          engine,
        ): Promise<ReadonlyMap<number, { readonly reachability: Reachability; readonly pages: number }>> | null =>
          site
            ? engine
                .reachabilities()
                .then(
                  (entries) =>
                    new Map(
                      entries.map(([id, reachability, pageIds]) => [id, { reachability, pages: pageIds.length }]),
                    ),
                )
            : null,
        new Map(),
      ),
    ),
    { initialValue: new Map() },
  );
  readonly #proposals = toSignal<readonly Spoken<PartProposal>[], readonly Spoken<PartProposal>[]>(
    toObservable(this.site.site).pipe(
      askEngine(
        this.#engine,
        (site, engine): Promise<readonly Spoken<PartProposal>[]> | null => (site ? engine.proposeParts() : null),
        [],
      ),
    ),
    { initialValue: [] },
  );

  protected readonly rows = computed(() =>
    this.#parts().map((part) => {
      const found = this.#reachabilities().get(part.id);
      return {
        ...part,
        pages: found?.pages ?? 0,
        reach: [
          found ? REACH_WORDS[found.reachability] : wordsOf('survey.matches-nothing'),
          part.openers.length > 0 ? wordsOf('survey.opens') : '',
        ]
          .filter((text) => text !== '')
          .map((text) => ` · ${text}`)
          .join(''),
      };
    }),
  );
  protected readonly fresh = computed(() => {
    const known = new Set(this.#parts().flatMap(({ selector }) => selector.split(',').map((text) => text.trim())));
    return this.#proposals().filter(({ selector }) => !known.has(selector));
  });

  protected others(id: number): { readonly id: number; readonly name: string }[] {
    return this.#parts()
      .filter((part) => part.id !== id)
      .map((part) => ({ id: part.id, name: part.name }));
  }

  protected show(id: number): void {
    this.shown.set(this.shown() === id ? null : id);
    const selector = this.#parts().find((part) => part.id === id)?.selector ?? '';
    this.selector.set(selector);
    this.opener.set({ selector: selector.includes(',') ? '' : selector, act: 'add-class', name: '', value: '' });
  }

  protected rename(id: number, field: HTMLInputElement): void {
    const before = this.#parts().find((part) => part.id === id)?.name ?? '';
    const name = field.value.trim();
    if (name === '' || name === before) field.value = before;
    else this.#store(withPart(this.#parts(), id, { name }), () => (field.value = before));
  }

  protected edit(id: number, edit: Parameters<typeof withPart>[2]): void {
    this.#store(withPart(this.#parts(), id, edit));
  }

  protected setOpener(edit: Partial<OpenerBody>): void {
    this.opener.set({ ...this.opener(), ...edit });
  }

  protected addOpener(id: number): void {
    const part = this.#parts().find((candidate) => candidate.id === id);
    const { selector, act, name, value } = this.opener();
    if (part)
      this.edit(id, {
        openers: [
          ...part.openers,
          {
            selector: selector.trim(),
            act,
            name: name.trim().replace(/^\./, ''),
            value: act === 'set-attribute' ? value : '',
          },
        ],
      });
  }

  protected merge(from: number, into: number): void {
    const request = withMerge(this.#parts(), from, into);
    if (request) this.#store(request);
  }

  protected remove(id: number): void {
    this.#store(withoutPart(this.#parts(), id));
  }

  protected take(proposals: readonly Spoken<PartProposal>[]): void {
    this.#store(withProposals(this.#parts(), proposals));
  }

  #store(request: PartsRequest, refused: () => void = () => undefined): void {
    let isStored = false;
    this.edits.putParts(request).subscribe({ next: () => (isStored = true), complete: () => !isStored && refused() });
  }
}
