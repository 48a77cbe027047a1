import { wordsOf } from '@upper-veneer/words';
import { CdkDrag, CdkDropList } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { colorOfCss, type Color, type NamedColor, type RoleName, type Swatch } from '@upper-veneer/core';
import type { PaletteRequest } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { SelectButton } from 'primeng/selectbutton';
import { combineLatest } from 'rxjs';
import { InTurn } from '../shared/drawing/in-turn';
import type { PaletteReport } from '../shared/engine/palette-api';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { PictureDesk } from '../shared/picture/picture-desk';
import {
  rolesFilledBy,
  usesOf,
  withColors,
  withConfirmed,
  withEdit,
  withOrder,
  withRole,
  withRoles,
  withSwatch,
  withoutSwatch,
} from '../shared/site/palette-edits';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { LightingToggle } from '../shared/ui/lighting-toggle';
import { NudgeColor } from '../shared/ui/nudge-color';
import { Notations } from '../shared/ui/notations';
import { TypedColorField } from '../shared/ui/typed-color';
import { BringIn } from './bring-in/bring-in';
import { DeleteDialog } from './delete-dialog';
import { ExceptionsList } from './exceptions-list';
import { HouseShapePanel } from './house-shape-panel';
import { LogoGrounds } from './logo-grounds';
import { OldFamily } from './old-family';
import { OtherSites } from './other-sites';
import { OtherEyes } from './other-eyes';
import { PairTable } from './pair-table';
import { RolesPanel } from './roles-panel';
import { SecondLighting } from './second-lighting';
import { ShadeLadder } from './shade-ladder';
import { Shelf } from './shelf';
import { Suggestions } from './suggestions';
import { PaneSwitch } from '../shared/ui/pane-switch';
import { roleWords } from '../shared/site/role-words';

const TOPICS = [
  { topic: 'pairs', label: wordsOf('palette.pairs-eyes') },
  { topic: 'roles', label: wordsOf('palette.roles') },
  { topic: 'shape', label: wordsOf('palette.house-shape') },
  { topic: 'suggestions', label: wordsOf('palette.suggestions') },
  { topic: 'logo', label: wordsOf('palette.logo-grounds') },
  { topic: 'exceptions', label: wordsOf('palette.exceptions-old-family') },
  { topic: 'sites', label: wordsOf('palette.other-sites') },
] as const;

/** The Palette: brand swatches, the jobs they have, and how they go together. */
@Component({
  selector: 'uv-palette-page',
  imports: [
    InTurn,
    PaneSwitch,
    BringIn,
    Button,
    CdkDrag,
    CdkDropList,
    DeleteDialog,
    ExceptionsList,
    FormsModule,
    InputText,
    HouseShapePanel,
    LogoGrounds,
    Notations,
    NudgeColor,
    OldFamily,
    OtherEyes,
    OtherSites,
    PairTable,
    LightingToggle,
    RolesPanel,
    SecondLighting,
    SelectButton,
    ShadeLadder,
    Shelf,
    Suggestions,
    TypedColorField,
  ],
  providers: [PictureDesk],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './palette-page.html',
  styleUrl: './palette-page.scss',
})
export class PalettePage {
  protected readonly wordsOf = wordsOf;

  /** Panels, one of which is shown where the window is narrow. */
  protected readonly panes = [
    { pane: 'swatches', label: wordsOf('palette.swatches') },
    { pane: 'swatch', label: wordsOf('palette.chosen') },
    { pane: 'more', label: wordsOf('palette.bring') },
  ];
  protected readonly pane = signal('swatches');
  protected readonly store = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  readonly #engine = inject(Engine);

  protected readonly topics = [...TOPICS];
  protected readonly topic = signal<(typeof TOPICS)[number]['topic']>('pairs');
  /** Of the colour-vision deficiencies shown, 0–1. */
  protected readonly severity = signal(1);
  /** The swatch that is about to be deleted. */
  protected readonly leaving = signal<Swatch | null>(null);
  protected readonly palette = this.store.palette;
  protected readonly selectedId = linkedSignal<number>(() => this.palette().swatches[0]?.id ?? 0);
  protected readonly swatch = computed(
    () => this.palette().swatches.find(({ id }) => id === this.selectedId()) ?? this.palette().swatches[0] ?? null,
  );
  protected readonly chosenId = computed(() => this.swatch()?.id ?? 0);
  protected readonly name = linkedSignal(() => this.swatch()?.name ?? '');
  protected readonly note = linkedSignal(() => this.swatch()?.note ?? '');
  protected readonly isEditing = linkedSignal({ source: this.chosenId, computation: () => false });

  protected readonly rows = computed(() =>
    this.palette().swatches.map((swatch) => ({
      ...swatch,
      uses: usesOf(this.palette(), this.store.overrides(), swatch.id).length,
      roles: rolesFilledBy(this.palette(), swatch.id).join(' · ') || wordsOf('palette.no-role'),
    })),
  );
  protected readonly uses = computed(() => usesOf(this.palette(), this.store.overrides(), this.swatch()?.id ?? 0));
  protected readonly report = toSignal<PaletteReport | null, null>(
    combineLatest([toObservable(this.palette), toObservable(this.severity)]).pipe(
      askEngine(
        this.#engine,
        ([palette, severity], engine): Promise<PaletteReport | null> => engine.judgePalette(palette, severity),
        null,
      ),
    ),
    { initialValue: null },
  );

  protected add(css: string, from: string): void {
    this.#store(withSwatch(this.palette(), css, from), true);
  }

  protected keepNote(): void {
    const swatch = this.swatch();
    const note = this.note().trim();
    if (swatch && note !== (swatch.note ?? '')) this.#store(withEdit(this.palette(), swatch.id, { note }));
  }

  protected put(request: PaletteRequest): void {
    this.#store(request);
  }

  protected confirm(roles: readonly RoleName[]): void {
    this.#store(withConfirmed(this.palette(), roles));
  }

  protected rename(): void {
    const swatch = this.swatch();
    const name = this.name().trim();
    if (swatch && name !== '' && name !== swatch.name) this.#store(withEdit(this.palette(), swatch.id, { name }));
    else this.name.set(swatch?.name ?? '');
  }

  protected recolor(css: string): void {
    const swatch = this.swatch();
    this.isEditing.set(false);
    if (swatch) this.#store(withEdit(this.palette(), swatch.id, { css }));
  }

  protected nudge({ id }: Swatch, css: string): void {
    this.#store(withEdit(this.palette(), id, { css }));
  }

  protected reorder(from: number, to: number): void {
    const request = withOrder(this.palette(), from, to);
    if (request) this.#store(request);
  }

  protected moveKey(event: KeyboardEvent, at: number): void {
    const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    if (by === undefined) return;
    event.preventDefault();
    this.reorder(at, at + by);
  }

  /** A swatch nobody uses goes at once; undo brings it back. */
  protected remove(): void {
    const swatch = this.swatch();
    if (!swatch) return;
    const isUsed = this.uses().length > 0 || rolesFilledBy(this.palette(), swatch.id).length > 0;
    if (isUsed) this.leaving.set(swatch);
    else this.#store(withoutSwatch(this.palette(), this.store.overrides(), swatch.id, null));
  }

  protected drop(request: PaletteRequest): void {
    this.leaving.set(null);
    this.#store(request);
  }

  protected addNamed(colors: readonly NamedColor[]): void {
    this.#store(withColors(this.palette(), colors), true);
  }

  protected take(colors: Readonly<Partial<Record<RoleName, Color>>>, label: string): void {
    this.#store(withRoles(this.palette(), colors, label, Object.keys(colors).length > 1));
  }

  protected remedy(role: RoleName, hex: string): void {
    const color = colorOfCss(hex);
    if (color) this.take({ [role]: color }, wordsOf('palette.fills', { hex, role: roleWords(role) }));
  }

  protected fill(role: RoleName, swatchId: number | null, shade: number): void {
    this.#store(withRole(this.palette(), role, swatchId, shade));
  }

  #store(request: PaletteRequest, selectLast = false): void {
    const selected = this.selectedId();
    this.edits
      .putPalette(request)
      .subscribe((draft) => this.selectedId.set(selectLast ? (draft.swatches.at(-1)?.id ?? selected) : selected));
  }
}
