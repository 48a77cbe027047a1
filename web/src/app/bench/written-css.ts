import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { compileVeneer, type Override, type Palette } from '@upper-veneer/core';
import { SiteStore } from '../shared/site/site-store';

/** The rule that the chosen cell's override compiles to. */
@Component({
  selector: 'uv-written-css',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<pre class="uv-mono uv-scroll" tabindex="0" aria-label="CSS being written">{{ css() || '/* nothing written for this cell */' }}</pre>`,
  styles: `
    :host { display: block; background: #1a1a1a; color: #f2f2f2; }
    pre { height: 92px; margin: 0; padding: 9px 16px; font-size: 12.5px; line-height: 1.45; white-space: pre-wrap; overflow-wrap: anywhere; }
    pre:focus-visible { outline: none; box-shadow: inset 0 0 0 2px #fff, inset 0 0 0 4px #000; }
  `,
})
export class WrittenCss {
  readonly #store = inject(SiteStore);
  readonly overrides = input.required<readonly Override[]>();

  protected readonly css = computed(() => {
    const site = this.#store.site();
    const overrides = this.overrides();
    if (!site || overrides.length === 0) return '';
    const palette: Palette = this.#store.palette();
    return compileVeneer(overrides, { palette, parts: site.parts, prefix: site.prefix }).replace(/^\/\* Palette \*\/\n:root \{[^}]*\}\n\n/, '').trim();
  });
}
