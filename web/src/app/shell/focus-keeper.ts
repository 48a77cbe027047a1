import { DOCUMENT, DestroyRef, Injectable, inject } from '@angular/core';

/** What can take the focus by itself. */
const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])';

interface Focused {
  readonly element: HTMLElement;
  /** What it stood in, nearest first. */
  readonly inside: readonly HTMLElement[];
  /** Its place among what can take the focus there. */
  readonly at: number;
}

/**
 * Keeps the focus from falling to the body when what had it is taken away, hidden or switched off: it goes to what opened a
 * dialog that is closed, else to what stands nearest.
 */
@Injectable({ providedIn: 'root' })
export class FocusKeeper {
  readonly #document = inject(DOCUMENT);
  /** What had the focus last. */
  #last: Focused | null = null;
  /** What had the focus before it went into a dialog, by dialog. */
  readonly #openers = new WeakMap<Element, HTMLElement>();
  #isAsked = false;

  constructor() {
    const onFocus = (event: FocusEvent): void => this.#note(event.target, event.relatedTarget);
    // A press beside everything lets go of the focus, as pages do.
    const onPress = (event: Event): void => {
      if (!(event.target as Element).closest(FOCUSABLE)) this.#last = null;
    };
    const observer = new MutationObserver(() => this.#check());
    this.#document.addEventListener('focusin', onFocus);
    this.#document.addEventListener('pointerdown', onPress, true);
    observer.observe(this.#document.body, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeFilter: ['disabled', 'hidden', 'style'],
    });
    inject(DestroyRef).onDestroy(() => {
      this.#document.removeEventListener('focusin', onFocus);
      this.#document.removeEventListener('pointerdown', onPress, true);
      observer.disconnect();
    });
  }

  #note(target: EventTarget | null, before: EventTarget | null): void {
    if (!(target instanceof HTMLElement) || target === this.#document.body) return;
    const dialog = target.closest('[role="dialog"], [role="alertdialog"], [role="menu"]');
    const from = before instanceof HTMLElement ? before : this.#last?.element;
    if (dialog && from && !dialog.contains(from)) this.#openers.set(dialog, from);
    const inside: HTMLElement[] = [];
    for (let node = target.parentElement; node; node = node.parentElement) inside.push(node);
    this.#last = {
      element: target,
      inside,
      at: target.parentElement ? [...target.parentElement.querySelectorAll(FOCUSABLE)].indexOf(target) : 0,
    };
  }

  #check(): void {
    if (this.#isAsked) return;
    this.#isAsked = true;
    // Asked once what changes has changed.
    requestAnimationFrame(() => {
      this.#isAsked = false;
      const { activeElement, body } = this.#document;
      const isLost =
        activeElement === null ||
        activeElement === body ||
        (activeElement instanceof HTMLButtonElement && activeElement.disabled);
      if (this.#last && isLost && this.#document.hasFocus()) this.#find(this.#last)?.focus({ preventScroll: true });
    });
  }

  #find({ element, inside, at }: Focused): HTMLElement | null {
    const dialog = inside.find((node) => this.#openers.has(node));
    const opener = dialog && !isShown(dialog) ? this.#openers.get(dialog) : undefined;
    if (opener?.isConnected && isShown(opener) && opener.matches(FOCUSABLE)) return opener;
    if (element.isConnected && isShown(element) && element.matches(FOCUSABLE)) return element;
    for (const [i, node] of inside.entries()) {
      if (!node.isConnected || !isShown(node)) continue;
      const near = [...node.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isShown);
      if (near.length > 0) return near[Math.min(Math.max(0, i === 0 ? at : 0), near.length - 1)];
      if (node.localName === 'main') return node;
    }
    return this.#document.querySelector('main');
  }
}

function isShown(element: Element): boolean {
  return element.isConnected && element.checkVisibility({ visibilityProperty: true });
}
