import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { PrimeNG } from 'primeng/config';
import { App } from './app';
import { DrawingTurns } from './shared/drawing/drawing-turns';
import { InTurn } from './shared/drawing/in-turn';
import { UpperVeneerPreset } from './theme/preset';

const THEME = { preset: UpperVeneerPreset, options: { darkModeSelector: '.uv-dark' } };

/** What the product starts with: it draws the product once the looks of its controls are known, each in a task of its own. */
@Component({
  selector: 'uv-root',
  imports: [App, InTurn],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<uv-app *uvInTurn />',
  styles: ':host { display: contents; }',
})
export class Root {
  constructor() {
    const controls = inject(PrimeNG);
    inject(DrawingTurns).wait(() => controls.setThemeConfig({ theme: THEME }));
  }
}
