// A booking form as its maker ships it: a custom element with a shadow tree and adopted sheets.
customElements.define(
  'booking-form',
  class extends HTMLElement {
    connectedCallback() {
      const root = this.attachShadow({ mode: 'open' });
      const base = new CSSStyleSheet();
      base.replaceSync(
        ':host { display: block; max-width: 420px; padding: 22px; border: 1px solid #cfd2e6; border-radius: 10px; background: #fff; color: #24243c; font: 15px/1.4 sans-serif; } label { display: block; margin: 12px 0 4px; color: #4a4a68; font-size: 13px; } input, select { box-sizing: border-box; width: 100%; height: 40px; padding: 0 12px; border: 1px solid #b9b6e0; border-radius: 6px; background: #fafaff; color: #24243c; font: inherit; } input:focus { outline: 2px solid #8d86e0; } .free { margin: 12px 0 0; color: #b23b3b; font-size: 13px; } .free.some { color: #1c7a3d; }',
      );
      const skin = new CSSStyleSheet();
      skin.replaceSync(
        'button { margin-top: 18px; padding: 13px 22px; border: 0; border-radius: 6px; background: #3a2fbf; color: #fff; font: 700 15px/1 sans-serif; cursor: pointer; } button:hover { background: #5b50ee; } button:disabled { background: #d9d9ea; color: #8a8ca3; }',
      );
      root.adoptedStyleSheets = [base, skin];
      root.innerHTML =
        '<label for="day">Date</label><input id="day" name="day" placeholder="Sat 14 June"><label for="people">Paddlers</label><select id="people" name="people"><option>1 adult</option><option>2 adults</option><option>2 adults, 1 child</option></select><p class="free">Choose a date to see what is free.</p><button type="button" disabled>Hold my place</button>';
      const [day, free, go] = ['#day', '.free', 'button'].map((selector) => root.querySelector(selector));
      day.addEventListener('input', () => {
        const isGiven = day.value.trim() !== '';
        free.textContent = isGiven ? 'Two canoes are left.' : 'Choose a date to see what is free.';
        free.classList.toggle('some', isGiven);
        go.disabled = !isGiven;
      });
    }
  },
);
