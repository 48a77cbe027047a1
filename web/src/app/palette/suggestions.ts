import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import {
  type Harmony,
  ROLE_NAMES,
  colorOfCss,
  colorOfValue,
  contrastRatio,
  lowestPair,
  neutralRamp,
  hexOf,
  type Color,
  type Lighting,
  type RoleName,
  type Swatch,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { of as once } from 'rxjs';
import { InTurn } from '../shared/drawing/in-turn';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import type { ReadyPalettes, SuggestedRoles, SuggestionStart } from '../shared/engine/palette-api';
import { SiteStore } from '../shared/site/site-store';
import { ShelfStore } from './shelf-store';
import { roleWords } from '../shared/site/role-words';

/** What is asked for, and of which swatch. */
interface Asked {
  readonly swatch: Swatch | null;
  readonly start: SuggestionStart;
}

/** What came of it; what is asked for now may be another. */
type Suggested = SuggestedRoles & { readonly asked: Asked | null };

const NOTHING: Suggested = { roles: null, harmonies: [], asked: null };
type Colors = Readonly<Partial<Record<RoleName, Color>>>;

const HARMONY_WORDS: Readonly<Record<Harmony, string>> = {
  analogous: wordsOf('harmony.analogous'),
  complementary: wordsOf('harmony.complementary'),
  split: wordsOf('harmony.split'),
  triad: wordsOf('harmony.triad'),
  tetrad: wordsOf('harmony.tetrad'),
  'same hue': wordsOf('harmony.same'),
};

/** Suggestions: a whole set of roles from three colours, harmonies of the chosen swatch, ready palettes that pass. */
@Component({
  selector: 'uv-suggestions',
  imports: [Button, FormsModule, InTurn, Select, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section>
      <header>
        <h2 i18n>All roles from three colours</h2>
        <p-selectbutton
          [options]="lightings" optionLabel="label" optionValue="lighting" [ngModel]="lighting()"
          (ngModelChange)="lighting.set($event)" [allowEmpty]="false" size="small" aria-label="Lighting" i18n-aria-label
        />
      </header>
      <div class="start">
        @for (part of parts; track part.key) {
          <span *uvInTurn>{{ part.label }} <p-select
              [options]="$any(choices())" optionLabel="name" optionValue="css" [ngModel]="start()[part.key]"
              (ngModelChange)="setStart(part.key, $event)" placeholder="choose" i18n-placeholder size="small" [ariaLabel]="part.label"
            >
            <ng-template #item let-option><span class="option"><i [style.background]="option.css"></i>{{ option.name }}</span></ng-template>
          </p-select></span>
        }
      </div>
      @if (proposal(); as colors) {
        <div class="roles" *uvInTurn>
          @for (role of rolesOf(colors); track role.role) {
            <span class="role"><i [style.background]="role.hex"></i><span>{{ role.label }}</span></span>
          }
        </div>
        <div class="acts" *uvInTurn>
          <span class="uv-soft" i18n>Every pair that is meant to meet reaches its ratio.</span>
          <p-button
            label="Take these roles" i18n-label size="small" [disabled]="!isCurrent()"
            (onClick)="taken.emit({ colors, label: wordsOf('palette.roles-from-three') })"
          />
        </div>
      }
    </section>
    @if (harmonies().length > 0) {
      <section>
        <header>
          <h2 i18n>In harmony with {{ of()?.name }}</h2>
          <span class="uv-soft" i18n>by hue in OKLCH; press a colour to lay it on the shelf</span>
        </header>
        <ul class="harmonies">
          @for (row of harmonies(); track row.name) {
            <li *uvInTurn class="harmony">
              <span class="uv-soft">{{ row.name }}</span>
              <span class="strip">
                <i class="own" [style.background]="of()?.css"></i>
                @for (hex of row.hexes; track $index) {
                  <button
                    type="button" [style.background]="hex" [title]="hex"
                    [attr.aria-label]="wordsOf('palette.lay-shelf', { hex: hex })"
                    (click)="shelf.put(hex, wordsOf('palette.harmony-to', { harmony: row.name, name: of()?.name ?? '' }))"
                  ></button>
                }
              </span>
              @if (row.roles; as roles) {
                <span class="strip roles" aria-hidden="true">
                  @for (role of rolesOf(roles); track role.role) {
                    <i [style.background]="role.hex" [title]="role.label + ' ' + role.hex"></i>
                  }
                </span>
                <span class="lowest" [title]="row.lowestWords" i18n>lowest {{ row.lowest }}</span>
                <p-button
                  label="Take" i18n-label [text]="true" size="small" [ariaLabel]="wordsOf('palette.take-roles-harmony', { name: row.name })"
                  [disabled]="!isCurrent()" (onClick)="taken.emit({ colors: roles, label: wordsOf('palette.roles-in-harmony', { name: row.name }) })"
                />
              }
            </li>
          }
        </ul>
      </section>
    }
    <section *uvInTurn>
      <header>
        <h2 i18n>Neutral ramp</h2>
        <p-selectbutton
          [options]="tints()" optionLabel="label" optionValue="tint" [ngModel]="tint()"
          (ngModelChange)="tint.set($event)" [allowEmpty]="false" size="small" aria-label="Tint of the neutral ramp" i18n-aria-label
        />
      </header>
      <div class="ramp">
        @for (step of ramp(); track step.hex) {
          <button
            type="button" [style.background]="step.hex" [title]="step.words"
            [attr.aria-label]="wordsOf('palette.lay-words-shelf', { words: step.words })" (click)="shelf.put(step.hex, wordsOf('palette.neutral-ramp'))"
          ></button>
        }
      </div>
      <div class="ramp figures uv-soft">@for (step of ramp(); track step.hex) { <span>{{ step.figure }}</span> }</div>
      <span class="uv-soft">{{ rampWords() }}</span>
    </section>
    <section>
      <header><h2 i18n>Ready palettes</h2><span class="uv-soft">{{ readyWords() }}</span></header>
      <ul>
        @for (ready of shownReady(); track $index) {
          <li *uvInTurn>
            <span class="strip" [title]="ready.lowestWords">
              @for (hex of ready.hexes; track $index) { <i [style.background]="hex"></i> }
            </span>
            <span class="lowest" [title]="ready.lowestWords">{{ ready.lowest }}</span>
            <p-button
              label="Take" i18n-label [text]="true" size="small" [ariaLabel]="wordsOf('palette.take-palette', { hexes: ready.hexes })"
              (onClick)="taken.emit({ colors: ready.roles, label: wordsOf('palette.take-ready-palette') })"
            />
          </li>
        }
      </ul>
      @if (ready().length > shownReady().length) {
        <p-button label="More" i18n-label [text]="true" size="small" (onClick)="many.set(many() + 12)" />
      }
    </section>
  `,
  styles: `
    :host { display: grid; gap: 16px; }
    section { display: grid; gap: 7px; }
    header { display: flex; align-items: center; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    .start { display: flex; flex-wrap: wrap; gap: 8px 16px; }
    .start span { display: flex; align-items: center; gap: 7px; }
    .start p-select { width: 130px; }
    i { display: block; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); }
    .option { display: flex; align-items: center; gap: 8px; }
    .option i { width: 18px; height: 14px; }
    .roles { display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 4px; }
    .role { display: grid; font-size: 12px; }
    .role i { height: 30px; }
    .acts { display: flex; align-items: center; justify-content: space-between; font-size: 12px; }
    .harmonies { grid-template-columns: minmax(0, 1fr); gap: 4px; }
    .harmony { display: grid; grid-template-columns: 100px minmax(176px, 1fr) minmax(0, 1fr) 76px 58px; align-items: center; gap: 12px; font-size: 12.5px; }
    .harmony .strip { height: 26px; }
    .harmony .strip button, .harmony .strip i { height: 26px; padding: 0; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); border-radius: 0; cursor: pointer; }
    .harmony .roles i { cursor: default; }
    .harmony .strip .own { border: 2px solid var(--uv-ink); cursor: default; }
    .lowest { font-size: 12px; white-space: nowrap; }
    .ramp { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); }
    .ramp button { height: 28px; padding: 0; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); border-radius: 0; cursor: pointer; }
    .figures { font-size: 12px; }
    section > .uv-soft { font-size: 12px; }
    @media (max-width: 900px) { .harmony { grid-template-columns: minmax(0, 1fr) auto; gap: 3px 12px; } .harmony .strip { grid-column: 1 / -1; } ul { grid-template-columns: minmax(0, 1fr); } .roles { grid-template-columns: repeat(4, minmax(0, 1fr)); } .ramp { grid-template-columns: repeat(6, minmax(0, 1fr)); grid-auto-flow: row; } }
    ul { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 4px 12px; margin: 0; padding: 0; list-style: none; }
    li { display: flex; align-items: center; gap: 6px; }
    .strip { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); flex: 1; height: 24px; }
    .strip i { height: 24px; border-width: 1px 0; }
  `,
})
export class Suggestions {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  protected readonly shelf = inject(ShelfStore);
  readonly swatch = input<Swatch | null>(null);
  /** Emits colours by role that are to become the palette's. */
  readonly taken = output<{ readonly colors: Colors; readonly label: string }>();

  protected readonly lightings = [
    { lighting: 'light', label: wordsOf('palette.light') },
    { lighting: 'inverted', label: wordsOf('palette.inverted') },
  ];
  protected readonly parts = [
    { key: 'ground', label: wordsOf('palette.ground') },
    { key: 'ink', label: wordsOf('palette.ink') },
    { key: 'accent', label: wordsOf('palette.accent') },
  ] as const;
  protected readonly lighting = signal<Lighting>('light');
  protected readonly many = signal(12);
  protected readonly choices = computed(() => [
    ...this.#site.palette().swatches.map(({ name, css }) => ({ name, css })),
    ...this.shelf.colors().map(({ css }) => ({ name: wordsOf('palette.on-shelf', { css }), css })),
  ]);
  protected readonly start = linkedSignal<Readonly<Record<'ground' | 'ink' | 'accent', string | null>>>(() => {
    const palette = this.#site.palette();
    const cssOf = (role: RoleName): string | null =>
      palette.swatches.find(({ id }) => id === palette.roles.find((fill) => fill.role === role)?.swatchId)?.css ?? null;
    return { ground: cssOf('ground'), ink: cssOf('ink'), accent: cssOf('accent') };
  });
  readonly #asked = computed((): Asked => {
    const { ground, ink, accent } = this.start();
    const [under, read, strong] = [ground, ink, accent].map((css) => (css === null ? null : colorOfCss(css)));
    const swatch = this.swatch();
    const own = colorOfValue({ kind: 'swatch', swatchId: swatch?.id ?? 0, shade: 0 }, this.#site.palette());
    return { swatch, start: { ground: under, ink: read, accent: strong, own, lighting: this.lighting() } };
  });
  /** Worked out beside the screen: each set of roles is looked for among thousands of shades. */
  readonly #suggested = toSignal<Suggested, Suggested>(
    toObservable(this.#asked).pipe(
      askEngine(
        this.#engine,
        (asked, engine): Promise<Suggested> => engine.suggestRoles(asked.start).then((found) => ({ ...found, asked })),
        NOTHING,
      ),
    ),
    { initialValue: NOTHING },
  );
  /** The swatch that what stands on the screen was worked out for. */
  protected readonly of = computed(() => this.#suggested().asked?.swatch ?? null);
  /** Whether it is what is chosen now: else it cannot be taken. */
  protected readonly isCurrent = computed(() => this.#suggested().asked === this.#asked());
  protected readonly proposal = computed<Colors | null>(() => this.#suggested().roles);
  /** Each harmony of the chosen swatch, with the roles it would make of it and the start's ground and ink. */
  protected readonly harmonies = computed(() =>
    this.#suggested().harmonies.map(({ harmony, hexes, roles }) => ({
      name: HARMONY_WORDS[harmony],
      hexes,
      roles,
      ...lowestView(roles),
    })),
  );
  protected readonly tint = signal<'pure' | 'ground'>('ground');
  readonly #ground = computed(() => {
    const { ground } = this.start();
    return ground === null ? null : colorOfCss(ground);
  });
  protected readonly tints = computed(() => [
    { tint: 'pure', label: wordsOf('palette.pure') },
    { tint: 'ground', label: wordsOf('palette.tinted-ground'), disabled: this.#ground() === null },
  ]);
  protected readonly ramp = computed(() => {
    const ground = this.#ground();
    return neutralRamp(this.tint() === 'ground' ? ground : null).map((step) => {
      const figure = ground ? contrastRatio(step, ground).toFixed(1) : '';
      return {
        hex: hexOf(step),
        figure,
        words: ground ? wordsOf('palette.ratio-on-ground', { step: hexOf(step), figure }) : hexOf(step),
      };
    });
  });
  protected readonly rampWords = computed(() =>
    this.#ground() ? wordsOf('palette.contrast-with-ground-press') : wordsOf('palette.press-step-lay-shelf'),
  );
  readonly #found = toSignal<ReadyPalettes | null, null>(
    once(null).pipe(
      askEngine(this.#engine, (_, engine): Promise<ReadyPalettes | null> => engine.readyPalettes(), null),
    ),
    { initialValue: null },
  );
  protected readonly ready = computed(() => this.#found()?.passing ?? []);
  protected readonly shownReady = computed(() =>
    this.ready()
      .slice(0, this.many())
      .map((found) => ({ ...found, ...lowestView(found.roles) })),
  );
  protected readonly readyWords = computed(() => {
    const found = this.#found();
    return found
      ? wordsOf('palette.pass-palest-under-darkest', { ready: found.passing.length, value: found.of })
      : wordsOf('sheet.reading');
  });

  protected setStart(key: 'ground' | 'ink' | 'accent', css: string): void {
    this.start.set({ ...this.start(), [key]: css });
  }

  protected rolesOf(colors: Colors): { readonly role: RoleName; readonly label: string; readonly hex: string }[] {
    return ROLE_NAMES.flatMap((role) => {
      const color = colors[role];
      return color ? [{ role, label: roleWords(role), hex: hexOf(color) }] : [];
    });
  }
}

/** The pair of some roles that comes nearest to failing, in words. */
function lowestView(roles: Colors | null): { readonly lowest: string; readonly lowestWords: string } {
  const lowest = roles && lowestPair(roles);
  if (!lowest) return { lowest: '', lowestWords: '' };
  const figure = (Math.floor(lowest.ratio * 10) / 10).toFixed(1);
  const words = wordsOf('palette.role-on-role', { role: roleWords(lowest.above), role2: roleWords(lowest.below) });
  return {
    lowest: figure,
    lowestWords: wordsOf('palette.its-lowest-pair-1', { words, ratio: lowest.ratio.toFixed(2), wanted: lowest.wanted }),
  };
}
