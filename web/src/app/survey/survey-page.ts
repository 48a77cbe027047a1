import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { USES, type Use } from '@upper-veneer/core';
import { ConfirmationService } from 'primeng/api';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { ConfirmDialog } from 'primeng/confirmdialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { InTurn } from '../shared/drawing/in-turn';
import { CensusStore } from '../shared/census/census-store';
import { withSwatch } from '../shared/site/palette-edits';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteList } from '../shared/site/site-list';
import { SiteStore } from '../shared/site/site-store';
import { ColorDetail } from './color-detail';
import { ColorFloor } from './color-floor';
import { colorRows, type ColorFilter } from './color-rows';
import { ColorTable } from './color-table';
import { FeedingDetail } from './feeding-detail';
import { FeedingTable } from './feeding-table';
import { FontsTable } from './fonts-table';
import { droppedFiles } from './import/dropped-files';
import type { ImportAim } from './import/import-aim';
import { ImportDialog } from './import/import-dialog';
import type { UploadFile } from './import/importer';
import { PagesPanel } from './pages-panel';
import { PartsPanel } from './parts-panel';
import { SheetsPanel } from './sheets-panel';
import { TopicPage } from './topic-page';
import { UnreadMark } from '../shared/ui/unread-mark';
import { PaneSwitch } from '../shared/ui/pane-switch';

const TOPICS = [
  { topic: 'colors', label: wordsOf('survey.colours') },
  { topic: 'properties', label: wordsOf('survey.properties') },
  { topic: 'fonts', label: wordsOf('survey.fonts') },
  { topic: 'sheets', label: wordsOf('survey.stylesheets') },
  { topic: 'parts', label: wordsOf('survey.parts') },
] as const;

/** The Survey: what the site is made of, every colour it paints, and where sites come in. */
@Component({
  selector: 'uv-survey-page',
  imports: [
    InTurn,
    PaneSwitch,
    Button,
    Checkbox,
    ColorDetail,
    ColorFloor,
    ColorTable,
    ConfirmDialog,
    FeedingDetail,
    FeedingTable,
    FontsTable,
    FormsModule,
    ImportDialog,
    InputText,
    PagesPanel,
    PartsPanel,
    Select,
    SelectButton,
    SheetsPanel,
    TopicPage,
    UnreadMark,
  ],
  providers: [ConfirmationService],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './survey-page.html',
  styleUrl: './survey-page.scss',
})
export class SurveyPage {
  protected readonly wordsOf = wordsOf;

  /** Panels, one of which is shown where the window is narrow. */
  protected readonly panes = [
    { pane: 'pages', label: wordsOf('survey.pages') },
    { pane: 'site', label: wordsOf('survey.site') },
    { pane: 'detail', label: wordsOf('survey.chosen') },
  ];
  protected readonly pane = signal('site');
  protected readonly site = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  protected readonly list = inject(SiteList);
  protected readonly census = inject(CensusStore);

  protected readonly topics = [...TOPICS];
  protected readonly topic = signal<(typeof TOPICS)[number]['topic']>('colors');
  protected readonly uses = USES.map((use) => ({ use, label: wordsOf(`use.${use}`) }));
  protected readonly confirmNames = { host: { 'aria-label': wordsOf('survey.to-be-confirmed') } as object };
  protected readonly standings = [
    { standing: 'stray', label: wordsOf('survey.stray') },
    { standing: 'near', label: wordsOf('survey.near-brand') },
    { standing: 'brand', label: wordsOf('survey.brand') },
    { standing: 'exception', label: wordsOf('survey.exception') },
  ];
  /** The custom property chosen: its name and where it is set, which a new count leaves as they are. */
  protected readonly chosenFeeding = signal('');
  protected readonly feeding = computed(
    () =>
      this.census.census()?.properties.find(({ name, sheet, line }) => name + sheet + line === this.chosenFeeding()) ??
      null,
  );
  protected readonly text = signal('');
  protected readonly use = signal<Use | null>(null);
  protected readonly standing = signal<string | null>(null);
  protected readonly isGrouped = signal(true);
  protected readonly aim = signal<ImportAim | null>(null);
  protected readonly dropped = signal<readonly UploadFile[]>([]);

  protected readonly state = this.census.state;
  /** Kept while the colour is still there. */
  protected readonly chosenHex = linkedSignal<ReadonlySet<string>, string | null>({
    source: () => new Set(this.census.colors().map(({ hex }) => hex)),
    computation: (hexes, before) => (before?.value && hexes.has(before.value) ? before.value : null),
  });
  protected readonly doing = computed(() => {
    const state = this.state();
    return state.status === 'counting' ? state.doing : '';
  });
  protected readonly share = computed(() => {
    const state = this.state();
    return state.status === 'counting' ? Math.round(100 * state.share) : 0;
  });
  protected readonly summary = computed(() => {
    const state = this.state();
    if (state.status !== 'counted') return '';
    const { elements, shown } = state.census;
    const missed = state.unmeasured.length > 0 ? wordsOf('survey.not-measured', { unmeasured: state.unmeasured }) : '';
    return wordsOf('survey.elements-shown', {
      elements,
      shown,
      missed,
    });
  });
  readonly #filter = computed<ColorFilter>(() => ({
    text: this.text(),
    use: this.use(),
    standing: this.standing(),
    isGrouped: this.isGrouped(),
  }));
  protected readonly rows = computed(() => colorRows(this.census.colors(), this.#filter()));
  protected readonly sought = computed(() => {
    const { text, use, standing } = this.#filter();
    return text.trim() === '' && use === null && standing === null
      ? null
      : new Set(this.rows().flatMap(({ hex, members }) => [hex, ...members.map((member) => member.hex)]));
  });

  constructor() {
    this.census.ensure();
  }

  protected toPalette(hex: string): void {
    this.edits.putPalette(withSwatch(this.site.palette(), hex)).subscribe();
  }

  protected except({ hex, reason }: { readonly hex: string; readonly reason: string }): void {
    const others = this.site.exceptions().filter(({ kind, target }) => kind !== 'color' || target !== hex);
    const exceptions = reason === '' ? others : [...others, { kind: 'color' as const, target: hex, reason }];
    this.edits
      .putExceptions({
        label: reason === '' ? wordsOf('survey.no-exception', { hex }) : wordsOf('survey.leave-alone', { hex }),
        exceptions: exceptions.map((exception) => ({ ...exception })),
      })
      .subscribe();
  }

  /** Files may be dropped anywhere on the view. */
  protected drop(event: DragEvent): void {
    event.preventDefault();
    if (!event.dataTransfer || this.aim()) return;
    void droppedFiles(event.dataTransfer).then((files) => {
      if (files.length === 0) return;
      this.dropped.set(files);
      this.aim.set({ siteId: null, page: null });
    });
  }

  protected closeImport(): void {
    this.aim.set(null);
    this.dropped.set([]);
  }

  protected finishImport(siteId: number): void {
    const isNew = siteId !== this.site.site()?.id;
    this.closeImport();
    this.list.refresh();
    if (isNew) this.site.open(siteId);
  }
}
