import { ChangeDetectionStrategy, Component, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';

/** Names a variation that is to be kept. */
@Component({
  selector: 'uv-variation-dialog',
  imports: [Button, Dialog, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '440px', maxWidth: '96vw' }" header="Keep as a variation" i18n-header>
      <form (ngSubmit)="keep()">
        <label><ng-container i18n>Name</ng-container><input pInputText pSize="small" name="name" maxlength="80" autocomplete="off" [ngModel]="name()" (ngModelChange)="name.set($event)" /></label>
        <p class="uv-soft" i18n>A fork of the draft that changes only this. The draft stays as it is; a trial holds the two against each other.</p>
        <div class="acts"><p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" label="Keep it" i18n-label size="small" [disabled]="name().trim() === ''" /></div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 10px; }
    label { display: grid; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    p { margin: 0; font-size: 12.5px; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; }
  `,
})
export class VariationDialog {
  readonly suggestion = input.required<string>();
  readonly kept = output<string>();
  readonly closed = output();
  protected readonly name = linkedSignal(() => this.suggestion().slice(0, 80));

  protected keep(): void {
    const name = this.name().trim();
    if (name !== '') this.kept.emit(name);
  }
}
