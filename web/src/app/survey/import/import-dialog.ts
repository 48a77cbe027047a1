import { spoken, wordsOf, type Spoken } from '@upper-veneer/words';
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
import { GrainBar } from '../../shared/ui/grain-bar';
import { AddressSource } from './address-source';
import { FromBrowser } from './from-browser';
import { Importer, type UploadFile } from './importer';
import { chosenFiles, droppedFiles } from './dropped-files';
import type { ImportAim } from './import-aim';
import { VisitDialog } from './visit/visit-dialog';

type Step =
  | { readonly name: 'asking'; readonly problem: { readonly title: string; readonly message: string } | null }
  | { readonly name: 'running'; readonly id: number | null; readonly progress: Spoken<ImportProgress> }
  | { readonly name: 'done'; readonly result: ImportResult & { readonly ok: true } };

/** Brings a site in, or pages into the open one: from files, from an address, or as a pasted widget. */
@Component({
  selector: 'uv-import-dialog',
  imports: [
    AddressSource,
    Button,
    Dialog,
    FormsModule,
    FromBrowser,
    GrainBar,
    InputText,
    SelectButton,
    Textarea,
    VisitDialog,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './import-dialog.html',
  styleUrl: './import-dialog.scss',
})
export class ImportDialog implements OnInit {
  protected readonly wordsOf = wordsOf;

  readonly #importer = inject(Importer);
  readonly aim = input.required<ImportAim>();
  /** Files that were dropped before the dialog opened. */
  readonly dropped = input<readonly UploadFile[]>([]);
  readonly closed = output();
  /** Emits the site that pages came into. */
  readonly finished = output<number>();
  #running: Subscription | null = null;

  protected readonly kinds = [
    { kind: 'files', label: wordsOf('survey.files') },
    { kind: 'address', label: wordsOf('survey.address') },
    { kind: 'browser', label: wordsOf('survey.your-browser') },
    { kind: 'widget', label: wordsOf('survey.pasted-widget') },
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
    if (isWhole) return wordsOf('survey.capture-site-again');
    return page
      ? wordsOf('survey.capture-again', { name: page.name })
      : siteId === null
        ? wordsOf('survey.bring-site')
        : wordsOf('survey.add-pages-this-site');
  });
  protected readonly problem = computed(() => {
    const step = this.step();
    return step.name === 'asking' ? step.problem : null;
  });
  protected readonly progress = computed<Spoken<ImportProgress>>(() => {
    const step = this.step();
    return step.name === 'running' ? step.progress : { stage: '', done: 0, total: 0 };
  });
  protected readonly share = computed(() =>
    this.progress().total > 0 ? this.progress().done / this.progress().total : null,
  );
  protected readonly progressWords = computed(() => {
    const { done, total } = this.progress();
    return total > 0 ? wordsOf('survey.done-of-total', { done, total }) : done > 0 ? String(done) : '';
  });
  protected readonly result = computed(() => {
    const step = this.step();
    return step.name === 'done' ? step.result : null;
  });
  protected readonly leftOut = computed(() => spoken(this.result()?.leftOut ?? []));
  protected readonly doneWords = computed(() => {
    const result = this.result();
    if (!result) return '';
    const added =
      result.pages.length > 0
        ? wordsOf('survey.page-pages-brought', { pages: result.pages.length, listed: listed(result.pages) })
        : '';
    const again =
      result.again.length > 0
        ? wordsOf('survey.captured-again', { listed: listed(result.again), again: result.again.length })
        : '';
    return [added, again].filter((text) => text !== '').join(' ') || wordsOf('survey.nothing-was-captured-again');
  });
  /** What of a site captured again is otherwise than it was; empty where nothing was. */
  protected readonly changedWords = computed(() => {
    const { again = [], changed = [], changedSheets = [] } = this.result() ?? {};
    if (again.length === 0) return '';
    const sheets = changedSheets.length;
    const what = [
      ...(changed.length > 0
        ? [wordsOf('survey.otherwise-than-before', { listed: listed(changed), changed: changed.length })]
        : []),
      ...(sheets > 0 ? [wordsOf('survey.stylesheet-stylesheets-are-another', { sheets })] : []),
    ];
    return what.length === 0
      ? wordsOf('survey.nothing-otherwise-than-was')
      : wordsOf('survey.what-overrides-lost-proof', { what: what.join('; ') });
  });
  protected readonly size = computed(() => sizeWords(this.files().reduce((sum, { file }) => sum + file.size, 0)));
  protected readonly fileNames = computed(() => {
    const names = this.files().map(({ path }) => path);
    return names.length > 6
      ? wordsOf('survey.more', { names: names.slice(0, 6), names2: names.length - 6 })
      : names.join(', ');
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
      problem: {
        title: wordsOf('survey.not-brought'),
        message: wordsOf('survey.field-reason', { pop: field.split('.').pop() ?? '', reason }),
      },
    });
    return null;
  }

  #run(said: object): void {
    const wish = this.#checked(said);
    if (!wish) return;
    this.step.set({ name: 'running', id: null, progress: { stage: wordsOf('survey.sending'), done: 0, total: 0 } });
    this.#running = this.#importer.run(wish, wish.kind === 'files' ? this.files() : []).subscribe({
      next: (event) => {
        const step = this.step();
        const id = step.name === 'running' ? step.id : null;
        if (event.kind === 'sending')
          this.step.set({
            name: 'running',
            id,
            progress: { stage: wordsOf('survey.sending'), done: Math.round(event.share * 100), total: 100 },
          });
        else if (event.kind === 'started') this.step.set({ name: 'running', id: event.id, progress: this.progress() });
        else if (event.kind === 'progress') this.step.set({ name: 'running', id, progress: event.progress });
        else if (event.result.ok) this.step.set({ name: 'done', result: event.result });
        else this.#refuse(ApiProblem.of(event.result.problem));
      },
      error: (error: unknown) => {
        const problem = ApiProblem.from(error);
        if (problem.isLost)
          this.step.set({ name: 'asking', problem: { title: `${problem.title}.`, message: problem.message } });
        else this.#refuse(problem);
      },
    });
  }

  /** Says why nothing came; the file that failed leaves the list, so that another can be tried. */
  #refuse({ title, message }: ApiProblem): void {
    this.files.update((files) => (files.length === 1 ? [] : files.filter(({ path }) => !message.includes(path))));
    this.step.set({ name: 'asking', problem: { title: `${title}.`, message } });
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
  const shown =
    names.length > 5 ? [...names.slice(0, 4), wordsOf('survey.more-names', { names: names.length - 4 })] : names;
  return shown.length < 2
    ? shown.join('')
    : wordsOf('survey.list-end', { shown: shown.slice(0, -1).join('; '), at: shown.at(-1) ?? '' });
}

function sizeWords(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}
