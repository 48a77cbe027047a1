import { DestroyRef, Directive, TemplateRef, ViewContainerRef, inject } from '@angular/core';
import { DrawingTurns } from './drawing-turns';

/** Draws an element of a view, or each row of a list, when its turn comes: `<uv-parts-list *uvInTurn />`. It stays. */
@Directive({ selector: '[uvInTurn]' })
export class InTurn {
  constructor() {
    const [template, place] = [inject(TemplateRef), inject(ViewContainerRef)];
    inject(DestroyRef).onDestroy(inject(DrawingTurns).wait(() => place.createEmbeddedView(template).detectChanges()));
  }
}
