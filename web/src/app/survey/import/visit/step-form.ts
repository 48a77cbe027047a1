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
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import type { SeenDocument } from '@upper-veneer/contract';
import { VISIT_BOUNDS, stepProblem, type VisitAct, type VisitStep } from '@upper-veneer/core';
import { plainStep, targetOf } from './plain-step';
import { VisitSession } from './visit-session';

const ACTS: readonly { readonly act: VisitAct; readonly label: string }[] = [
  { act: 'press', label: 'Press' },
  { act: 'type', label: 'Type into' },
  { act: 'choose', label: 'Choose in' },
  { act: 'hover', label: 'Hover over' },
  { act: 'wait', label: 'Wait for' },
  { act: 'scroll', label: 'Scroll to' },
  { act: 'width', label: 'Be this wide' },
  { act: 'anew', label: 'Begin anew' },
];

/** The next step: done to what was pointed at, or written by hand. */
@Component({
  selector: 'uv-step-form',
  imports: [Button, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="next" aria-label="The next step" role="group">
      @if (!isByHand()) {
        <label for="uv-visit-target">Point at the picture, or choose here</label>
        <p-select inputId="uv-visit-target" size="small" [options]="$any(elements())" optionLabel="label" [filter]="true" filterBy="label" placeholder="What is on the page" emptyFilterMessage="Nothing of these words is in the window" [ngModel]="chosenOption()" (ngModelChange)="pickedSeen.emit($event.seen)" appendTo="body" />
        @if (chosen(); as seen) {
          <p class="uv-mono found" [title]="seen.selector">{{ seen.words === '' ? seen.selector : '“' + seen.words + '”' }}@if (seen.frame) { <span class="uv-soft"> in {{ seen.frame }}</span> }</p>
          @if (seen.act === 'type') {
            <form class="line" (ngSubmit)="does('type')"><input pInputText pSize="small" name="text" autocomplete="off" [maxlength]="500" aria-label="What is typed" placeholder="What is typed; it is stored with the site" [ngModel]="text()" (ngModelChange)="text.set($event)" /><p-button type="submit" label="Type it" size="small" [disabled]="isBusy()" /></form>
          }
          @if (seen.act === 'choose') {
            <form class="line" (ngSubmit)="does('choose')"><p-select name="choice" size="small" [options]="$any(seen.choices)" ariaLabel="What is chosen" [ngModel]="text()" (ngModelChange)="text.set($event)" appendTo="body" /><p-button type="submit" label="Choose it" size="small" [disabled]="isBusy() || text() === ''" /></form>
          }
          <div class="line">
            @for (own of simple; track own.act) { <p-button [label]="own.label" size="small" [outlined]="own.act !== 'press' || seen.act !== 'press'" [disabled]="isBusy()" (onClick)="does(own.act)" /> }
          </div>
        }
      } @else {
        <form (ngSubmit)="addWritten()" class="written">
          <p-select name="act" size="small" [options]="$any(acts)" optionLabel="label" optionValue="act" ariaLabel="What is done" [ngModel]="act()" (ngModelChange)="act.set($event)" appendTo="body" />
          @if (isAimed()) {
            <input pInputText pSize="small" name="selector" class="uv-mono" autocomplete="off" spellcheck="false" aria-label="CSS selector" placeholder="CSS selector" [ngModel]="selector()" (ngModelChange)="selector.set($event)" />
            <input pInputText pSize="small" name="words" autocomplete="off" aria-label="Words it shows" placeholder="and words it shows" [ngModel]="words()" (ngModelChange)="words.set($event)" />
            <input pInputText pSize="small" name="frame" class="uv-mono" autocomplete="off" spellcheck="false" aria-label="CSS selector of its frame" placeholder="in the frame (CSS selector)" [ngModel]="frame()" (ngModelChange)="frame.set($event)" />
          }
          @if (act() === 'type' || act() === 'choose') { <input pInputText pSize="small" name="text" autocomplete="off" aria-label="What is typed or chosen" placeholder="What is typed or chosen" [ngModel]="text()" (ngModelChange)="text.set($event)" /> }
          @if (act() === 'width') { <label class="line">px <input pInputText pSize="small" name="width" type="number" [min]="bounds.leastWidth" [max]="bounds.mostWidth" aria-label="Width of the window in px" [ngModel]="width()" (ngModelChange)="width.set($event)" /></label> }
          @if (wrong(); as reason) { <p class="uv-soft">The step {{ reason }}.</p> }
          <div class="line"><p-button type="submit" label="Do it" size="small" [disabled]="isBusy() || wrong() !== null" /></div>
        </form>
      }
      <div class="line"><button type="button" class="link" (click)="isByHand.set(!isByHand())">{{ isByHand() ? 'Point instead' : 'Write it by hand' }}</button></div>
    </div>
  `,
  styles: `
    .next, .written { display: grid; gap: 6px; }
    .next > label { font-weight: 600; }
    .line { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
    .line input, .line p-select { flex: 1; min-width: 0; }
    p { margin: 0; font-size: 12.5px; overflow-wrap: anywhere; }
    .link { padding: 2px 0; border: 0; background: none; text-decoration: underline; cursor: pointer; font-size: 12.5px; }
  `,
})
export class StepForm {
  protected readonly session = inject(VisitSession);
  readonly chosen = input<SeenDocument | null>(null);
  readonly pickedSeen = output<SeenDocument>();
  protected readonly acts = ACTS;
  protected readonly bounds = VISIT_BOUNDS;
  protected readonly simple = ACTS.filter(({ act }) => ['press', 'hover', 'wait', 'scroll'].includes(act));
  protected readonly isByHand = signal(false);
  protected readonly act = signal<VisitAct>('press');
  protected readonly selector = signal('');
  protected readonly words = signal('');
  protected readonly frame = signal('');
  protected readonly width = signal<number | null>(390);
  protected readonly text = linkedSignal({ source: this.chosen, computation: () => '' });
  protected readonly isBusy = computed(() => this.session.doing() !== '' || this.session.sight() === null);
  protected readonly isAimed = computed(() => this.act() !== 'width' && this.act() !== 'anew');
  protected readonly elements = computed(() =>
    (this.session.sight()?.elements ?? []).map((seen) => ({
      seen,
      label: `${seen.name}${KIND[seen.act]}${this.#isPast(seen) ? ', outside the window' : ''}`,
    })),
  );
  protected readonly chosenOption = computed(() => this.elements().find(({ seen }) => seen === this.chosen()) ?? null);
  readonly #written = computed<VisitStep>(() =>
    plainStep(this.act(), {
      ...(this.isAimed()
        ? { selector: this.selector().trim(), words: this.words().trim(), frame: this.frame().trim() }
        : {}),
      text: this.act() === 'type' || this.act() === 'choose' ? this.text() : '',
      width: this.act() === 'width' ? this.width() : null,
    }),
  );
  protected readonly wrong = computed(() => stepProblem(this.#written()));

  #isPast({ box: { x, y, width, height } }: SeenDocument): boolean {
    const sight = this.session.sight();
    return sight !== null && (x >= sight.width || y >= sight.height || x + width <= 0 || y + height <= 0);
  }

  protected does(act: VisitAct): void {
    const seen = this.chosen();
    if (!seen || this.isBusy()) return;
    this.session.add(
      plainStep(act, { ...targetOf(seen), text: act === 'type' || act === 'choose' ? this.text() : '' }),
    );
  }

  protected addWritten(): void {
    if (this.wrong() === null && !this.isBusy()) this.session.add(this.#written());
  }
}

const KIND: Readonly<Record<SeenDocument['act'], string>> = {
  press: '',
  type: ', field',
  choose: ', list',
  wait: ', no control',
};
