import {
  ChangeDetectionStrategy,
  Component,
  type OnInit,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { VisitPlan } from '@upper-veneer/core';
import { ImportRequest, validateBody, type ImportProgress, type ImportResult } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { SelectButton } from 'primeng/selectbutton';
import { Textarea } from 'primeng/textarea';
import type { Subscription } from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';
import { AddressSource } from './address-source';
import { FromBrowser } from './from-browser';
import { Importer, type UploadFile } from './importer';
import { chosenFiles, droppedFiles } from './dropped-files';
import type { ImportAim } from './import-aim';
import { VisitDialog } from './visit/visit-dialog';

type Step =
  | { readonly name: 'asking'; readonly problem: { readonly title: string; readonly message: string } | null }
  | { readonly name: 'running'; readonly id: number | null; readonly progress: ImportProgress }
  | { readonly name: 'done'; readonly result: ImportResult & { readonly ok: true } };

/** Brings a site in, or pages into the open one: from files, from an address, or as a pasted widget. */
@Component({
  selector: 'uv-import-dialog',
  imports: [AddressSource, Button, Dialog, FormsModule, FromBrowser, InputText, SelectButton, Textarea, VisitDialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (planning(); as own) { <uv-visit-dialog [plan]="own" (planned)="visit($event)" (closed)="leavePlan($event)" /> }
    @else {
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="close()" [modal]="true" [draggable]="false" closeAriaLabel="Close" [closeOnEscape]="step().name !== 'running'" [closable]="step().name !== 'running'" [style]="{ width: '620px', maxWidth: '96vw' }" [header]="heading()">
      @switch (step().name) {
        @case ('asking') {
          <form (ngSubmit)="start()" class="form">
            @if (!aim().isWhole) { <p-selectbutton name="kind" [options]="kinds" optionLabel="label" optionValue="kind" [ngModel]="kind()" (ngModelChange)="kind.set($event)" [allowEmpty]="false" size="small" aria-label="Where it comes from" /> }
            @switch (aim().isWhole ? '' : kind()) {
              @case ('files') {
                <div class="drop" [class.over]="isOver()" (dragover)="$event.preventDefault(); isOver.set(true)" (dragleave)="isOver.set(false)" (drop)="drop($event)">
                  @if (files().length > 0) {
                    <p><strong>{{ files().length }} {{ files().length === 1 ? 'file' : 'files' }}</strong>, {{ size() }}</p>
                    <p class="uv-soft names">{{ fileNames() }}</p>
                  } @else {
                    <p><strong>Drop a saved page or site here</strong></p>
                    <p class="uv-soft">A zip, a web archive (.mhtml), HTML files with what belongs to them, a whole folder, or a site that was saved here as a file, which comes back with its history. Up to 50 MB and 2,000 files.</p>
                  }
                  <p class="pick"><p-button label="Choose files" [outlined]="true" size="small" (onClick)="fileField.click()" /><p-button label="Choose a folder" [outlined]="true" size="small" (onClick)="folderField.click()" />@if (files().length > 0) { <p-button label="Start over" [text]="true" size="small" (onClick)="files.set([])" /> }</p>
                  <input #fileField type="file" multiple hidden aria-label="Files to bring in" (change)="take(fileField)" /><input #folderField type="file" webkitdirectory hidden aria-label="Folder to bring in" (change)="take(folderField)" />
                </div>
              }
              @case ('address') {
                @if (aim().visit; as own) {
                  <p>{{ own.plan.steps.length === 0 ? 'It comes' : 'It comes by ' + own.plan.steps.length + (own.plan.steps.length === 1 ? ' step' : ' steps') }} from <span class="uv-mono">{{ own.plan.address }}</span>, as a visitor's browser gets it at {{ own.plan.width }} px{{ own.paths.length > 1 ? '. ' + own.paths.length + ' pages are of this visit, and captured again together.' : '.' }}</p>
                  <div><p-button label="Change its steps…" size="small" [outlined]="true" (onClick)="plan(ownPlan())" /></div>
                } @else {
                  <uv-address-source [(address)]="address" [(isRendered)]="isRendered" [(width)]="width" [steps]="planned().steps.length" (stepsWanted)="plan(planned())" />
                }
              }
              @case ('browser') { <uv-from-browser /> }
              @case ('widget') {
                <label for="uv-html">HTML of the widget</label>
                <textarea pTextarea id="uv-html" name="html" class="uv-mono" rows="6" spellcheck="false" [ngModel]="html()" (ngModelChange)="html.set($event)"></textarea>
                <label for="uv-css">Its CSS</label>
                <textarea pTextarea id="uv-css" name="css" class="uv-mono" rows="6" spellcheck="false" [ngModel]="css()" (ngModelChange)="css.set($event)"></textarea>
              }
            }
            @if (!aim().isWhole && (aim().siteId === null || kind() === 'widget')) {
              <label for="uv-name">{{ aim().siteId === null ? 'Name of the site' : 'Name of the page' }} <span class="uv-soft">(empty: as the page is called)</span></label>
              <input pInputText id="uv-name" name="name" maxlength="120" autocomplete="off" [ngModel]="name()" (ngModelChange)="name.set($event)" />
            }
            @if (problem(); as found) { <p class="problem" role="alert"><strong>{{ found.title }}</strong> {{ found.message }}</p> }
            <div class="acts"><p-button label="Cancel" [text]="true" (onClick)="close()" /><p-button type="submit" [label]="aim().isWhole || aim().page ? 'Capture again' : 'Bring in'" [disabled]="!canStart()" /></div>
          </form>
        }
        @case ('running') {
          <div class="form" role="status">
            <p><strong>{{ progress().stage }}</strong> <span class="uv-soft">{{ progressWords() }}</span></p>
            <span class="track" role="progressbar" [attr.aria-valuenow]="share() === null ? null : share()! * 100" aria-label="Import"><span class="uv-grain" [class.unknown]="share() === null" [style.width.%]="share() === null ? 30 : share()! * 100"></span></span>
            <div class="acts"><p-button label="Stop" [outlined]="true" (onClick)="stop()" /></div>
          </div>
        }
        @case ('done') {
          @if (result(); as found) {
            <div class="form">
              <p>{{ doneWords() }}</p>
              @if (changedWords(); as words) { <p>{{ words }}</p> }
              @if (found.leftOut.length > 0) {
                <p><strong>{{ found.leftOut.length }} left out</strong></p>
                <ul class="uv-scroll">@for (file of found.leftOut; track $index) { <li><span class="uv-mono">{{ file.path }}</span><span class="uv-soft">{{ file.reason }}</span></li> }</ul>
              }
              <div class="acts"><p-button label="Look at it" (onClick)="finished.emit(found.siteId)" /></div>
            </div>
          }
        }
      }
    </p-dialog>
    }
  `,
  styleUrl: './import-dialog.scss',
})
export class ImportDialog implements OnInit {
  readonly #importer = inject(Importer);
  readonly aim = input.required<ImportAim>();
  /** Files that were dropped before the dialog opened. */
  readonly dropped = input<readonly UploadFile[]>([]);
  readonly closed = output();
  /** Emits the site that pages came into. */
  readonly finished = output<number>();
  #running: Subscription | null = null;

  protected readonly kinds = [
    { kind: 'files', label: 'Files' },
    { kind: 'address', label: 'Address' },
    { kind: 'browser', label: 'Your browser' },
    { kind: 'widget', label: 'Pasted widget' },
  ];
  protected readonly kind = linkedSignal<'files' | 'address' | 'browser' | 'widget'>(() =>
    /^https?:/.test(this.aim().page?.source ?? '') ? 'address' : 'files',
  );
  protected readonly address = linkedSignal(() =>
    /^https?:/.test(this.aim().page?.source ?? '') ? (this.aim().page?.source ?? '') : '',
  );
  protected readonly isRendered = signal(true);
  protected readonly width = signal<number | null>(1280);
  /** The visit whose steps are being planned. */
  protected readonly planning = signal<VisitPlan | null>(null);
  /** The one that was left last, so that it can be gone on with. */
  readonly #drafted = signal<VisitPlan | null>(null);
  /** What is planned for the address: the page alone, until steps are. */
  protected readonly planned = computed<VisitPlan>(() => {
    const [address, drafted] = [this.address().trim(), this.#drafted()];
    const { keep, steps } = drafted?.address === address ? drafted : { keep: '', steps: [] };
    return { address, width: this.width() ?? 1280, keep, steps };
  });
  /** The plan of the visit that is captured again, as it was changed last. */
  protected readonly ownPlan = computed<VisitPlan>(() => {
    const own = this.aim().visit?.plan ?? this.planned();
    const drafted = this.#drafted();
    return drafted?.address === own.address ? drafted : own;
  });
  protected readonly files = linkedSignal<readonly UploadFile[]>(() => this.dropped());
  protected readonly html = signal('');
  protected readonly css = signal('');
  protected readonly name = signal('');
  protected readonly isOver = signal(false);
  protected readonly step = signal<Step>({ name: 'asking', problem: null });

  protected readonly heading = computed(() => {
    const { siteId, page, isWhole } = this.aim();
    if (isWhole) return 'Capture the site again';
    return page ? `Capture ${page.name} again` : siteId === null ? 'Bring in a site' : 'Add pages to this site';
  });
  protected readonly problem = computed(() => {
    const step = this.step();
    return step.name === 'asking' ? step.problem : null;
  });
  protected readonly progress = computed<ImportProgress>(() => {
    const step = this.step();
    return step.name === 'running' ? step.progress : { stage: '', done: 0, total: 0 };
  });
  protected readonly share = computed(() =>
    this.progress().total > 0 ? this.progress().done / this.progress().total : null,
  );
  protected readonly progressWords = computed(() => {
    const { done, total } = this.progress();
    return total > 0 ? `${done} of ${total}` : done > 0 ? String(done) : '';
  });
  protected readonly result = computed(() => {
    const step = this.step();
    return step.name === 'done' ? step.result : null;
  });
  protected readonly doneWords = computed(() => {
    const result = this.result();
    if (!result) return '';
    const added =
      result.pages.length > 0
        ? `${result.pages.length} ${result.pages.length === 1 ? 'page' : 'pages'} brought in: ${listed(result.pages)}.`
        : '';
    const again =
      result.again.length > 0
        ? `${listed(result.again)} ${result.again.length === 1 ? 'was' : 'were'} captured again.`
        : '';
    return [added, again].filter((text) => text !== '').join(' ');
  });
  /** What of a site captured again is otherwise than it was; empty where nothing was. */
  protected readonly changedWords = computed(() => {
    const { again = [], changed = [] } = this.result() ?? {};
    if (again.length === 0) return '';
    return changed.length === 0
      ? 'Nothing of it is otherwise than it was.'
      : `${listed(changed)} ${changed.length === 1 ? 'is' : 'are'} otherwise than before: what overrides lost by it is in Proof, under Drift.`;
  });
  protected readonly size = computed(() => sizeWords(this.files().reduce((sum, { file }) => sum + file.size, 0)));
  protected readonly fileNames = computed(() => {
    const names = this.files().map(({ path }) => path);
    return names.length > 6 ? `${names.slice(0, 6).join(', ')} and ${names.length - 6} more` : names.join(', ');
  });
  protected readonly canStart = computed(
    () =>
      this.aim().isWhole ||
      {
        files: this.files().length > 0,
        address: this.address().trim() !== '' && (!this.isRendered() || this.width() !== null),
        browser: false,
        widget: this.html().trim() !== '',
      }[this.kind()],
  );

  ngOnInit(): void {
    if (this.aim().isWhole) this.#run({ kind: 'again' });
  }

  protected take(field: HTMLInputElement): void {
    if (field.files) this.#add(chosenFiles(field.files));
    field.value = '';
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(false);
    if (event.dataTransfer) void droppedFiles(event.dataTransfer).then((files) => this.#add(files));
  }

  /** Plans steps on the page itself, or says why it cannot be opened. */
  protected plan(plan: VisitPlan): void {
    if (this.#checked({ kind: 'visit', visit: plan })) this.planning.set(plan);
  }

  /** Nothing of a plan is lost by going back. */
  protected leavePlan(plan: VisitPlan): void {
    this.#drafted.set(plan);
    this.planning.set(null);
  }

  protected visit(plan: VisitPlan): void {
    this.leavePlan(plan);
    const { visit } = this.aim();
    this.#run({ kind: 'visit', visit: plan, ...(visit ? { visitIds: [visit.id] } : {}) });
  }

  protected start(): void {
    const kind = this.kind();
    const { visit, isWhole } = this.aim();
    if (isWhole) this.#run({ kind: 'again' });
    else if (kind === 'address' && visit) this.#run({ kind: 'again', visitIds: [visit.id] });
    else if (kind === 'address' && this.isRendered()) this.#run({ kind: 'visit', visit: this.planned() });
    else if (kind === 'address') this.#run({ kind, address: this.address().trim() });
    else if (kind === 'widget') this.#run({ kind, html: this.html(), css: this.css() });
    else this.#run({ kind: 'files' });
  }

  /** The wish as the server takes it; `null`, and said, when it does not. */
  #checked(said: object): ImportRequest | null {
    const checked = validateBody(ImportRequest, { siteId: this.aim().siteId, name: this.name().trim(), ...said });
    if (checked.ok) return checked.value;
    const [{ field, reason }] = checked.errors;
    this.step.set({
      name: 'asking',
      problem: { title: 'Not brought in.', message: `The ${field.split('.').pop() ?? ''} ${reason}.` },
    });
    return null;
  }

  #run(said: object): void {
    const wish = this.#checked(said);
    if (!wish) return;
    this.step.set({ name: 'running', id: null, progress: { stage: 'Sending', done: 0, total: 0 } });
    this.#running = this.#importer.run(wish, wish.kind === 'files' ? this.files() : []).subscribe({
      next: (event) => {
        const step = this.step();
        const id = step.name === 'running' ? step.id : null;
        if (event.kind === 'sending')
          this.step.set({
            name: 'running',
            id,
            progress: { stage: 'Sending', done: Math.round(event.share * 100), total: 100 },
          });
        else if (event.kind === 'started') this.step.set({ name: 'running', id: event.id, progress: this.progress() });
        else if (event.kind === 'progress') this.step.set({ name: 'running', id, progress: event.progress });
        else if (event.result.ok) this.step.set({ name: 'done', result: event.result });
        else this.#refuse(`${event.result.problem.title}.`, event.result.problem.detail ?? '');
      },
      error: (error: unknown) => {
        const problem = ApiProblem.from(error);
        if (problem.isLost)
          this.step.set({ name: 'asking', problem: { title: `${problem.title}.`, message: problem.message } });
        else this.#refuse(`${problem.title}.`, problem.message);
      },
    });
  }

  /** Says why nothing came; the file that failed leaves the list, so that another can be tried. */
  #refuse(title: string, message: string): void {
    this.files.update((files) => (files.length === 1 ? [] : files.filter(({ path }) => !message.includes(path))));
    this.step.set({ name: 'asking', problem: { title, message } });
  }

  protected stop(): void {
    const step = this.step();
    if (step.name !== 'running') return;
    if (step.id !== null) {
      this.#importer.stop(step.id).subscribe();
      return;
    }
    this.#running?.unsubscribe();
    this.step.set({ name: 'asking', problem: null });
  }

  protected close(): void {
    const result = this.result();
    if (result) this.finished.emit(result.siteId);
    else if (this.step().name !== 'running') this.closed.emit();
  }

  #add(files: readonly UploadFile[]): void {
    const paths = new Set(files.map(({ path }) => path));
    this.files.set([...this.files().filter(({ path }) => !paths.has(path)), ...files]);
  }
}

function listed(names: readonly string[]): string {
  // Names have commas of their own.
  const shown = names.length > 5 ? [...names.slice(0, 4), `${names.length - 4} more`] : names;
  return shown.length < 2 ? shown.join('') : `${shown.slice(0, -1).join('; ')} and ${shown.at(-1)}`;
}

function sizeWords(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}
