/**
 * Counts for a trial, in a visitor's browser: that the part came into view, and what of it was done; each once, told again until it is
 * acknowledged. What is kept there is what was told, under ids drawn for each; nothing that tells who it is.
 */
export const LOOK_SCRIPT = `(() => {
  const facts = JSON.parse(document.currentScript.dataset.facts);
  const key = 'look-' + facts.trial;
  let kept;
  try {
    kept = JSON.parse(localStorage.getItem(key) || '{}');
    localStorage.setItem(key, JSON.stringify(kept));
  } catch {
    return;
  }
  const keep = () => localStorage.setItem(key, JSON.stringify(kept));
  const drawn = () => [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  const tell = () => {
    for (const [kind, event] of Object.entries(kept)) {
      if (event.told || event.underway) continue;
      event.underway = true;
      const body = JSON.stringify({ id: event.id, trial: facts.trial, look: facts.look, kind: Number(kind) });
      fetch(facts.to, { method: 'POST', keepalive: true, headers: { 'content-type': 'application/json' }, body })
        .then((answer) => {
          event.underway = false;
          // A trial that is over takes no more.
          if (answer.ok || answer.status === 410) { event.told = true; keep(); }
        })
        .catch(() => { event.underway = false; });
    }
  };
  for (const event of Object.values(kept)) event.underway = false;
  const note = (kind) => {
    if (!kept[kind]) { kept[kind] = { id: drawn() }; keep(); }
    tell();
  };
  const did = (kind) => { if (!kept[-1]) note(-1); note(kind); };
  const matches = (target, selector) => target instanceof Element && target.closest(selector) !== null;
  const begin = () => {
    if (facts.seen === '') note(-1);
    else {
      const watch = new IntersectionObserver((entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) { note(-1); watch.disconnect(); }
      });
      for (const element of document.querySelectorAll(facts.seen)) watch.observe(element);
    }
    facts.did.forEach(({ kind, target }, i) => {
      if (kind === 'press') {
        document.addEventListener('click', (event) => { if (matches(event.target, target)) did(i); }, true);
        // What is pressed in a frame of another origin is told by the focus that goes there.
        addEventListener('blur', () => { if (document.activeElement?.localName === 'iframe' && matches(document.activeElement, target)) did(i); });
      } else if (kind === 'sent') document.addEventListener('submit', (event) => { if (matches(event.target, target)) did(i); }, true);
      else if (kept[-1] && location.pathname.endsWith('/' + target)) note(i);
    });
    tell();
    addEventListener('online', tell);
    setInterval(tell, 5000);
  };
  if (document.readyState === 'loading') addEventListener('DOMContentLoaded', begin);
  else begin();
})();
`;
