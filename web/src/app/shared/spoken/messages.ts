import { Injectable, inject } from '@angular/core';
import { MessageService } from 'primeng/api';

/** A problem in words. */
export interface Told {
  readonly title: string;
  readonly message: string;
  /** Whether the server does not answer; it stays longer. */
  readonly isLost: boolean;
}

/** Says what no field and no list has a place for. */
@Injectable({ providedIn: 'root' })
export class Messages {
  readonly #messages = inject(MessageService);

  /** Shows a problem. */
  report({ title, message, isLost }: Told): void {
    this.#messages.add({ severity: 'contrast', summary: title, detail: message, life: isLost ? 8000 : 6000 });
  }
}
