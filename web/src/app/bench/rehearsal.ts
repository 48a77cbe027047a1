import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  EnvironmentInjector,
  Injectable,
  type Injector,
  createComponent,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { NUMBER_ATTRIBUTE } from '@upper-veneer/core';
import { InTurn } from '../shared/drawing/in-turn';
import { Engine } from '../shared/engine/engine';
import type { FrameDocument } from '../shared/frame/frame-document';
import type { FramedPage } from '../shared/frame/framed-page';
import { BenchAnswers } from './store/bench-answers';
import { BenchSelection } from './store/bench-selection';
import { BenchSteering } from './store/bench-steering';
import { WrittenCss } from './editor/written-css';
import { LineageBar } from './grid/lineage-bar';
import { StateStrip } from './page/state-strip';
import { TargetPanel } from './target-panel';
import { PictureContrast } from './verdict/picture-contrast';
import { VerdictBar } from './verdict/verdict-bar';

/** A page that stands on the Bench, with nothing of it chosen. */
export interface Scene {
  readonly pageId: number;
  readonly width: number;
  readonly page: FramedPage;
  readonly drawn: FrameDocument;
}

/** How long nothing is asked before it begins, and how often that is looked at, ms. */
const QUIET_MS = 1500;
/** Where no tile is drawn, it ends after so long, ms. */
const MOST_MS = 4000;
/** What a tile that has loaded is given to lay its page out, ms. */
const AFTER_TILE_MS = 100;
const UNSEEN = 'position: fixed; width: 0; height: 0; overflow: hidden; visibility: hidden; contain: strict;';
/** What a designer is likely to choose first. */
const LIKELY = 'button, a[href], input';

/** What the Bench draws of an element that is chosen, with a choice of its own. */
@Component({
  selector: 'uv-rehearsal',
  imports: [InTurn, LineageBar, StateStrip, TargetPanel, VerdictBar, WrittenCss],
  // What acts and judges stays the Bench's: nothing is judged for a choice that nobody made.
  providers: [BenchSelection, BenchAnswers, BenchSteering, PictureContrast],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <uv-lineage-bar *uvInTurn [inspection]="answers.inspection()" />
    @if (answers.inspection(); as found) {
      <uv-target-panel [inspection]="found" />
      <uv-verdict-bar *uvInTurn [judgement]="null" />
      <uv-written-css *uvInTurn [overrides]="answers.cellOverrides()" why="" />
    }
    <uv-state-strip
      *uvInTurn [inspection]="answers.inspection()" [target]="selection.target()" [page]="scene().page" [width]="scene().width"
      [state]="selection.cell().state" [drawn]="scene().drawn"
    />
  `,
})
class Rehearsal {
  readonly scene = input.required<Scene>();
  readonly element = input.required<number>();
  protected readonly selection = inject(BenchSelection);
  protected readonly answers = inject(BenchAnswers);

  constructor() {
    inject(BenchSteering);
    effect(() => {
      const [{ pageId, width }, element] = [this.scene(), this.element()];
      untracked(() => {
        this.selection.showPage(pageId);
        this.selection.width.set(width);
        this.selection.choose(element);
      });
    });
  }
}

/**
 * Draws what a first choice draws once before, where nobody sees or hears it: browsers compile code and set up styles the first time
 * they need them, and the designer is not to wait for that.
 */
@Injectable({ providedIn: 'root' })
export class BenchRehearsal {
  readonly #engine = inject(Engine);
  readonly #application = inject(ApplicationRef);
  readonly #environment = inject(EnvironmentInjector);
  /** Sites that were rehearsed. */
  readonly #done = new Set<number>();

  /**
   * Rehearses a site that was not yet, once nothing is asked.
   * @param injector that of the Bench.
   * @returns gives it up, also in its middle.
   */
  whenQuiet(siteId: number, scene: () => Scene, injector: Injector): () => void {
    if (this.#done.has(siteId)) return () => undefined;
    const begin = (): void => {
      if (this.#engine.pending() > 0 || document.hidden) {
        timer = setTimeout(begin, QUIET_MS);
        return;
      }
      this.#done.add(siteId);
      end = this.#draw(scene(), injector);
    };
    let timer = setTimeout(begin, QUIET_MS);
    let end = (): void => clearTimeout(timer);
    return () => end();
  }

  #draw(scene: Scene, injector: Injector): () => void {
    const element = likelyTarget(scene.drawn);
    if (element === null) return () => undefined;
    const place = document.createElement('div');
    place.inert = true;
    place.style.cssText = UNSEEN;
    // Closed, so that nothing that looks for the Bench's panels finds these.
    const host = place.attachShadow({ mode: 'closed' }).appendChild(document.createElement('div'));
    document.body.append(place);
    const drawn = createComponent(Rehearsal, {
      environmentInjector: this.#environment,
      elementInjector: injector,
      hostElement: host,
    });
    drawn.setInput('scene', scene);
    drawn.setInput('element', element);
    this.#application.attachView(drawn.hostView);
    const end = (): void => {
      clearTimeout(timer);
      if (place.isConnected) drawn.destroy();
      place.remove();
    };
    let timer = setTimeout(end, MOST_MS);
    host.addEventListener(
      'load',
      () => {
        clearTimeout(timer);
        timer = setTimeout(end, AFTER_TILE_MS);
      },
      { capture: true, once: true },
    );
    return end;
  }
}

/** The first of the likely elements that shows; `null` where there is none. */
function likelyTarget({ document: page }: FrameDocument): number | null {
  const likely = [...page.querySelectorAll(`:is(${LIKELY})[${NUMBER_ATTRIBUTE}]`)].find((element) =>
    element.checkVisibility(),
  );
  return likely ? Number(likely.getAttribute(NUMBER_ATTRIBUTE)) : null;
}
