import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { SelectButton } from 'primeng/selectbutton';

/** A panel of a view that windows too narrow for all show by itself. */
export interface Pane {
  readonly pane: string;
  readonly label: string;
}

/** Chooses which panel of a view is shown where the window is too narrow for all of them; elsewhere it is not there. */
@Component({
  selector: 'uv-pane-switch',
  imports: [FormsModule, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p-selectbutton [options]="$any(panes())" optionLabel="label" optionValue="pane" [ngModel]="pane()" (ngModelChange)="pane.set($event)" [allowEmpty]="false" size="small" aria-label="Panel" i18n-aria-label />`,
  styles: `
    :host { display: none; padding: 5px 10px; background: var(--uv-bar); border-bottom: 1px solid var(--uv-line-strong); }
    @media (max-width: 900px) { :host { display: block; } }
  `,
})
export class PaneSwitch {
  readonly panes = input.required<readonly Pane[]>();
  readonly pane = model.required<string>();
}
