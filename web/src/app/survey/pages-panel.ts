import { spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { mdiPencilOutline, mdiRefresh, mdiTrashCanOutline } from '@mdi/js';
import { Icon } from '../shared/ui/icon';
import { ConfirmationService } from 'primeng/api';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { isSpecimen } from '@upper-veneer/core';
import { finalize } from 'rxjs';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteList } from '../shared/site/site-list';
import { SiteStore } from '../shared/site/site-store';
import { SaveSite } from './save-site';
import type { ImportAim } from './import/import-aim';

/** The site and its pages: chosen, named, captured again, removed. */
@Component({
  selector: 'uv-pages-panel',
  imports: [Button, FormsModule, InputText, Icon, SaveSite, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      @if (list.sites().length > 1) {
        <p-select [options]="$any(list.sites())" optionLabel="name" optionValue="id" [ngModel]="store.site()?.id" (ngModelChange)="store.open($event)" size="small" ariaLabel="Site" i18n-ariaLabel />
      }
      <div class="named"><form (ngSubmit)="renameSite()"><input pInputText pSize="small" name="site" class="site" maxlength="120" autocomplete="off" aria-label="Name of the site" i18n-aria-label [ngModel]="store.site()?.name" #name="ngModel" (blur)="renameSite(name.value)" (keydown.enter)="renameSite(name.value)" /></form>
        <span class="tools"><button
          type="button" aria-label="Remove this site" i18n-aria-label title="Remove this site" i18n-title
          (click)="dropSite()"><uv-icon [path]="icons.drop" [size]="14" /></button></span></div>
      <p-button class="wide" label="Bring in a site…" i18n-label size="small" (onClick)="wanted.emit({ siteId: null, page: null })" />
      <uv-save-site />
    </header>
    <div class="title">
      <h2 i18n>Pages</h2>
      @if (canCaptureAll()) {
        <p-button
          label="All again" i18n-label ariaLabel="All again: capture every page that came from an address"
          i18n-ariaLabel [text]="true" size="small"
          title="Captures every page that came from an address again, by the same steps" i18n-title
          (onClick)="wanted.emit({ siteId: store.site()?.id ?? null, page: null, isWhole: true })" />
      }
      <p-button
        label="Add…" i18n-label [text]="true" size="small"
        (onClick)="wanted.emit({ siteId: store.site()?.id ?? null, page: null })" />
    </div>
    <ul class="uv-scroll">
      @for (page of store.site()?.pages ?? []; track page.id) {
        <li>
          @if (renaming() === page.id) {
            <form (ngSubmit)="renamePage(page.id, field.value)"><input #field pInputText pSize="small" name="page" maxlength="120" autocomplete="off" [attr.aria-label]="wordsOf('survey.name-page-of', { name: page.name })" [value]="page.name" (blur)="renamePage(page.id, field.value)" (keydown.escape)="renaming.set(null)" /></form>
          } @else {
            <span class="text">
              <strong [title]="page.name">{{ page.name }}</strong>
              @if (isSpecimen(page)) {
                <span
                  class="uv-soft made"
                  title="Every kind of element and every part in the states that markup can say; visitors do not get it"
                  i18n-title i18n>made here, for what no page shows</span>
              } @else { <span class="uv-mono uv-soft" [title]="page.source || page.path">{{ page.path }}</span> }
            </span>
            <span class="tools">
              <button
                type="button" [attr.aria-label]="wordsOf('survey.rename', { name: page.name })" title="Rename"
                i18n-title (click)="rename(page.id)"><uv-icon [path]="icons.rename" [size]="14" /></button>
              @if (isSpecimen(page)) {
                <button
                  type="button" aria-label="Make the specimen anew" i18n-aria-label title="Make it anew" i18n-title
                  (click)="makeSpecimen()"><uv-icon [path]="icons.again" [size]="14" /></button>
              } @else {
              <button
                type="button" [attr.aria-label]="wordsOf('survey.capture-again', { name: page.name })"
                title="Capture again" i18n-title
                (click)="captureAgain(page)"><uv-icon [path]="icons.again" [size]="14" /></button>
              }
              <button
                type="button" [attr.aria-label]="wordsOf('survey.remove', { name: page.name })" title="Remove"
                i18n-title (click)="drop(page.id, page.name)"><uv-icon [path]="icons.drop" [size]="14" /></button>
            </span>
          }
        </li>
      }
    </ul>
    @if (!hasSpecimen() && store.site()) {
      <p class="specimen">
        <span class="uv-soft" i18n>No page may show a refused field, a link or a second list page. The specimen shows every kind and part in the states that markup can say.</span>
        <p-button label="Make a specimen" i18n-label [outlined]="true" size="small" [loading]="isMaking()" (onClick)="makeSpecimen()" />
      </p>
    }
    @if (leftOut().length; as count) {
      <details class="uv-scroll">
        <summary i18n>{{ count }} left out by the last import</summary>
        <ul>
          @for (file of leftOut(); track $index) {
            <li class="left">
              <span class="uv-mono">{{ file.path }}</span><span class="uv-soft">{{ file.reason }}</span>
            </li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr); grid-template-rows: auto auto minmax(0, 1fr) auto auto; min-height: 0; background: var(--uv-panel); border-right: 1px solid var(--uv-line-strong); }
    header { display: grid; grid-template-columns: minmax(0, 1fr); gap: 7px; padding: 12px; border-bottom: 1px solid var(--uv-line); }
    header p-select, .site { width: 100%; }
    .site { font-weight: 700; }
    .named { display: flex; align-items: center; gap: 4px; }
    .named form { flex: 1; min-width: 0; }
    .wide ::ng-deep .p-button { width: 100%; }
    .title { display: flex; align-items: center; padding: 6px 6px 2px 12px; }
    h2 { flex: 1; font-weight: 700; }
    ul { margin: 0; padding: 0; list-style: none; min-height: 0; }
    li { position: relative; display: flex; align-items: center; min-height: 42px; padding: 4px 6px 4px 12px; border-bottom: 1px solid var(--uv-line); }
    li form { flex: 1; }
    li input { width: 100%; }
    .text { display: grid; flex: 1; min-width: 0; }
    .text > * { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .text .uv-mono { font-size: 12px; }
    .tools { display: flex; flex: none; opacity: .55; }
    li:hover .tools, .tools:focus-within { opacity: 1; }
    .tools button { display: grid; place-items: center; width: 24px; height: 26px; padding: 0; border: 0; border-radius: 3px; background: none; cursor: pointer; }
    .tools button:hover { background: var(--uv-bar); }
    .specimen { display: grid; gap: 6px; justify-items: start; padding: 9px 12px; border-top: 1px solid var(--uv-line-strong); font-size: 12px; }
    .made { font-size: 12px; }
    details { max-height: 220px; border-top: 1px solid var(--uv-line-strong); font-size: 12px; }
    summary { padding: 8px 12px; cursor: pointer; }
    .left { display: grid; min-height: 0; }
    .left span { overflow-wrap: anywhere; }
  `,
})
export class PagesPanel {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  protected readonly list = inject(SiteList);
  readonly #confirm = inject(ConfirmationService);
  /** Emits what is to be brought in. */
  readonly wanted = output<ImportAim>();

  protected readonly icons = { rename: mdiPencilOutline, again: mdiRefresh, drop: mdiTrashCanOutline };
  protected readonly renaming = signal<number | null>(null);

  protected readonly isSpecimen = isSpecimen;
  protected readonly hasSpecimen = computed(() => (this.store.site()?.pages ?? []).some(isSpecimen));
  protected readonly isMaking = signal(false);
  /** Said once: there may be thousands. */
  protected readonly leftOut = computed(() => spoken(this.store.site()?.leftOut ?? []));

  /** Whether any page came from an address. */
  protected readonly canCaptureAll = computed(() =>
    (this.store.site()?.pages ?? []).some(({ source }) => /^https?:/.test(source)),
  );

  protected captureAgain(page: NonNullable<ImportAim['page']>): void {
    const site = this.store.site();
    const visit = site?.visits.find(({ paths }) => paths.includes(page.path));
    this.wanted.emit({ siteId: site?.id ?? null, page, ...(visit ? { visit } : {}) });
  }

  protected makeSpecimen(): void {
    this.isMaking.set(true);
    this.edits
      .makeSpecimen()
      .pipe(finalize(() => this.isMaking.set(false)))
      .subscribe();
  }

  protected rename(id: number): void {
    this.renaming.set(id);
    setTimeout(() => document.querySelector<HTMLInputElement>('uv-pages-panel li input')?.select());
  }

  protected renamePage(id: number, text: string): void {
    if (this.renaming() !== id) return;
    this.renaming.set(null);
    const name = text.trim();
    if (name !== '' && name !== this.store.site()?.pages.find((page) => page.id === id)?.name)
      this.edits.renamePage(id, name).subscribe();
  }

  protected renameSite(text = ''): void {
    const name = text.trim();
    if (name !== '' && name !== this.store.site()?.name) this.edits.renameSite(name).subscribe();
  }

  protected drop(id: number, name: string): void {
    this.#confirm.confirm({
      header: wordsOf('survey.remove', { name }),
      message: wordsOf('survey.goes-from-this-site', { name }),
      acceptLabel: wordsOf('survey.remove-page'),
      rejectLabel: wordsOf('survey.keep'),
      accept: () => this.edits.dropPage(id).subscribe(),
    });
  }

  protected dropSite(): void {
    const site = this.store.site();
    if (!site) return;
    this.#confirm.confirm({
      header: wordsOf('survey.remove', { name: site.name }),
      message: wordsOf('survey.site-goes-with-its', {
        captured: this.store.captured().length,
        overrides: site.draft.overrides.length,
        revisions: site.draft.revisions.length,
      }),
      acceptLabel: wordsOf('survey.remove-site'),
      rejectLabel: wordsOf('survey.keep'),
      accept: () => this.edits.dropSite(),
    });
  }
}
