// A checkout of two steps as its maker ships it: the second has no address of its own.
(() => {
  const root = document.getElementById('ck');
  const draw = (step, problem = '') => {
    const now = (own) => (own === step ? ' ck-now" aria-current="step' : '');
    const head = `<ol class="ck-steps" role="list"><li class="ck-step${now(1)}">Who comes</li><li class="ck-step${now(2)}">How you pay</li></ol>`;
    root.dataset.step = String(step);
    root.innerHTML =
      step === 1
        ? `${head}<form class="ck-panel ck-one">${problem ? `<p class="ck-error" role="alert">${problem}</p>` : ''}<label class="ck-label" for="ck-a">First paddler</label><input class="ck-input" id="ck-a" name="first"><label class="ck-label" for="ck-c">Child seat</label><select class="ck-input" id="ck-c" name="seat"><option>None</option><option>One</option></select><button type="submit" class="ck-next">Go on to payment</button></form>`
        : `${head}<form class="ck-panel ck-two" style="display: block"><label class="ck-label" for="ck-d">Card number</label><input class="ck-input" id="ck-d" name="card" placeholder="0000 0000 0000 0000"><label class="ck-choice"><input type="checkbox" name="keep"> Keep it for next time</label><button type="submit" class="ck-next ck-pay" disabled>Pay &pound;81</button></form>`;
    root.querySelector('form').addEventListener('submit', (event) => {
      event.preventDefault();
      const first = root.querySelector('#ck-a');
      if (first) draw(first.value.trim() === '' ? 1 : 2, 'The name of the first paddler is missing.');
    });
    const card = root.querySelector('#ck-d');
    card?.addEventListener('input', () => {
      root.querySelector('.ck-pay').disabled = card.value.length < 16;
    });
  };
  draw(1);
})();
