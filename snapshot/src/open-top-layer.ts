/**
 * Puts what a snapshot marked back into the top layer, with its backdrop: modal dialogs and open popovers. Works on the document from
 * outside, so that none of its scripts need run; where focus was, it stays. Sources: HTML §4.11.4 showModal, §6.12.1 showPopover.
 */
export function openTopLayer(root: Document): void {
  const roots: (Document | ShadowRoot)[] = [root];
  for (const tree of roots)
    for (const element of tree.querySelectorAll<HTMLElement>('*')) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      const layer = element.getAttribute('data-top-layer');
      try {
        if (layer === 'modal' && element.localName === 'dialog' && !element.matches(':modal')) {
          // One that stands open already cannot be shown as a modal one.
          element.removeAttribute('open');
          (element as HTMLDialogElement).showModal();
        } else if (layer === 'popover' && !element.matches(':popover-open')) element.showPopover();
      } catch {
        // One that is nowhere in the page, or that its own attributes forbid, stays as it is.
      }
    }
}
