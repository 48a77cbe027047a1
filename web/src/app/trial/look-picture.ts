import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { TrialLook } from '@upper-veneer/contract';
import { settingsCss, type SettingsSheet, type Spot } from '@upper-veneer/core';
import { catchError, combineLatest, from, of, switchMap } from 'rxjs';
import { SiteApi } from '../shared/api/site-api';
import { Engine } from '../shared/engine/engine';
import type { FramedPage } from '../shared/frame/framed-page';
import { ScopePicture } from '../shared/frame/scope-picture';
import { LightingSwitch } from '../shared/site/lighting-switch';
import { SiteStore } from '../shared/site/site-store';
import { FramedPicture } from '../match/settings/framed-picture';

/** One look of a trial, drawn as its visitors see it. */
@Component({
  selector: 'uv-look-picture',
  imports: [FramedPicture, ScopePicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (framed(); as own) {
      <uv-framed-picture [heading]="heading()" [path]="own.path" [css]="own.css" />
    } @else if (page(); as drawn) {
      <uv-scope-picture [heading]="heading()" [page]="drawn" [width]="1280" [element]="spot()?.element ?? 0" />
    } @else {
      <h3>{{ heading() }}</h3>
      <p class="uv-soft">{{ spot() ? wordsOf('trial.drawing') : wordsOf('trial.stands-no-page-site') }}</p>
    }
    <span class="uv-mono of" [title]="settingsWords()" i18n>revision {{ look().revision }}{{ look().settings.length > 0 ? wordsOf('trial.settings') : '' }}</span>
  `,
  styles: `
    :host { position: relative; display: grid; min-width: 0; min-height: 0; }
    uv-framed-picture, uv-scope-picture { min-height: 0; }
    h3 { padding: 6px 12px; font-weight: 700; font-size: 12.5px; }
    p { margin: 0; padding: 0 12px; }
    .of { position: absolute; right: 12px; top: 6px; font-size: 12px; }
  `,
})
export class LookPicture {
  protected readonly wordsOf = wordsOf;

  readonly look = input.required<TrialLook>();
  /** Where what is tried stands; `null` for nowhere. */
  readonly spot = input.required<Spot | null>();

  readonly #site = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly #engine = inject(Engine);
  readonly #lighting = inject(LightingSwitch);

  protected readonly heading = computed(() => `${this.look().variation} · ${this.look().name}`);
  readonly #sheet = computed<SettingsSheet | null>(() => {
    const partId = this.look().settings.at(0)?.partId;
    return this.#site.draft()?.settings.find((own) => own.partId === partId) ?? null;
  });
  /** The captured document of a part that only takes settings, with those of this look. */
  protected readonly framed = computed(() => {
    const sheet = this.#sheet();
    const values = this.look().settings.at(0)?.values ?? {};
    return sheet && sheet.document !== ''
      ? { path: sheet.document, css: settingsCss(sheet, ({ name }) => values[name] ?? '') }
      : null;
  });
  protected readonly settingsWords = computed(() =>
    this.look()
      .settings.flatMap(({ values }) => Object.entries(values).map(([name, value]) => `${name}: ${value}`))
      .join('\n'),
  );
  readonly #frameCss = toSignal(
    combineLatest([toObservable(this.look), toObservable(this.#site.site)]).pipe(
      switchMap(([{ revision }, site]) =>
        site
          ? this.#api.revision(site.id, revision).pipe(
              switchMap(({ css }) => from(this.#engine.remote.frameCssOf(css))),
              catchError(() => of(null)),
            )
          : of(null),
      ),
    ),
    { initialValue: null },
  );
  protected readonly page = computed<FramedPage | null>(() => {
    const [site, spot, frameCss] = [this.#site.site(), this.spot(), this.#frameCss()];
    return site && spot && frameCss !== null
      ? {
          url: `/frame/sites/${site.id}/pages/${spot.pageId}/?v=${site.draft.structure}`,
          veneerPlace: site.veneerPlace,
          frameCss,
          amendments: new Map(),
          scheme: this.#lighting.scheme(),
        }
      : null;
  });
}
