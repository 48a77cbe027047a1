import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { rewriteStates, stateAttribute, type SettingState } from '@upper-veneer/core';
import { layIn } from '../../shared/frame/frame-document';
import { SiteStore } from '../../shared/site/site-store';

/** Pseudo-classes that hold in a state. */
const NAMES: Readonly<Partial<Record<SettingState, readonly string[]>>> = {
  visited: ['visited'],
  hover: ['hover'],
  focus: ['focus', 'focus-visible'],
  active: ['hover', 'active'],
  checked: ['checked'],
  disabled: ['disabled'],
};

/** A framed part drawn by its own captured document, in its own sandbox. */
@Component({
  selector: 'uv-framed-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ heading() }}</h3>
    <div class="view"><iframe #frame [title]="heading()" sandbox="allow-same-origin" tabindex="-1" referrerpolicy="no-referrer" [src]="url()" [style.height]="height()" (load)="loads.set(loads() + 1)"></iframe></div>
  `,
  styles: `
    :host { display: grid; grid-template-rows: 28px minmax(0, 1fr); min-width: 0; min-height: 0; }
    h3 { align-self: center; padding: 0 12px; overflow: hidden; font-weight: 700; font-size: 12.5px; text-overflow: ellipsis; white-space: nowrap; }
    .view { position: relative; margin: 0 12px 12px; overflow: hidden; }
    iframe { display: block; width: 100%; max-height: 100%; border: 0; background: #fff; box-shadow: 0 1px 4px rgb(0 0 0 / 22%); }
  `,
})
export class FramedPicture {
  readonly heading = input.required<string>();
  /** Path of the document in the site. */
  readonly path = input.required<string>();
  /** CSS that is laid over it. */
  readonly css = input.required<string>();
  readonly state = input<SettingState>('rest');

  readonly #site = inject(SiteStore);
  readonly #sanitizer = inject(DomSanitizer);
  private readonly frame = viewChild.required<ElementRef<HTMLIFrameElement>>('frame');
  protected readonly loads = signal(0);
  /** As tall as what is in it; all there is where that says nothing, as with what is placed by itself. */
  protected readonly height = signal('100%');
  protected readonly url = computed(() =>
    this.#sanitizer.bypassSecurityTrustResourceUrl(
      `/frame/sites/${this.#site.site()?.id ?? 0}/framed/${this.path().split('/').map(encodeURIComponent).join('/')}`,
    ),
  );

  constructor() {
    effect(() => {
      this.loads();
      const document = this.frame().nativeElement.contentDocument;
      layIn(document, rewriteStates(this.css()));
      const own = document?.URL === 'about:blank' ? 0 : (document?.documentElement.offsetHeight ?? 0);
      this.height.set(own > 8 ? `${own}px` : '100%');
      const names = NAMES[this.state()] ?? [];
      for (const element of document?.querySelectorAll('[data-uv-n]') ?? [])
        for (const name of Object.values(NAMES).flat())
          element.toggleAttribute(stateAttribute(name), names.includes(name));
    });
  }
}
