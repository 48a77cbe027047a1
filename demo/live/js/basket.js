// A basket drawer as its maker ships it: a dialog over the page, made by the first press.
(() => {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(
    '.bk-drawer { position: fixed; inset: 0 0 0 auto; width: 360px; height: 100%; max-height: none; margin: 0 0 0 auto; padding: 0; border: 0; background: #fdfdff; color: #202033; font: 15px/1.45 sans-serif; } .bk-drawer::backdrop { background: rgb(20 20 60 / .45); } .bk-top { display: flex; justify-content: space-between; padding: 18px 20px; background: #7a2bd6; color: #fff; } .bk-x { border: 0; background: none; color: #fff; font: 22px/1 sans-serif; cursor: pointer; } .bk-line { padding: 14px 20px; border-bottom: 1px solid #e2dcf2; } .bk-pay { display: block; margin: 20px; padding: 14px; border-radius: 24px; background: #7a2bd6; color: #fff; text-align: center; text-decoration: none; font-weight: 700; } .bk-pay:hover { background: #5d15b4; } .bk-open { padding: 8px 14px; border: 1px solid #7a2bd6; border-radius: 20px; background: #fff; color: #7a2bd6; font: 700 14px/1 sans-serif; cursor: pointer; } .bk-why { padding: 10px 14px; border: 1px solid #7a2bd6; background: #f4eefd; color: #202033; font: 13px/1.4 sans-serif; }',
  );
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  const lines = [];
  const place = document.getElementById('basket-place');
  place.innerHTML =
    '<button type="button" class="bk-open">Basket</button> <button type="button" class="bk-open" popovertarget="bk-why">Why so little?</button><span id="bk-why" class="bk-why" popover>We lend most of it for nothing.</span>';
  const draw = () => {
    let drawer = document.querySelector('.bk-drawer');
    if (!drawer) {
      drawer = document.createElement('dialog');
      drawer.className = 'bk-drawer';
      drawer.setAttribute('aria-label', 'Basket');
      document.body.append(drawer);
    }
    const total = lines.reduce((sum, { price }) => sum + price, 0);
    drawer.innerHTML = `<div class="bk-top"><strong>Your basket</strong><button type="button" class="bk-x" aria-label="Close">&times;</button></div>${lines.map(({ item, price }) => `<p class="bk-line" style="margin: 0">${item} &pound;${price}</p>`).join('')}<a class="bk-pay" href="checkout.html">Pay &pound;${total}</a>`;
    drawer.querySelector('.bk-x').addEventListener('click', () => drawer.close());
    drawer.showModal();
  };
  place.querySelector('.bk-open').addEventListener('click', draw);
  for (const button of document.querySelectorAll('[data-item]'))
    button.addEventListener('click', () => {
      lines.push({ item: button.dataset.item, price: Number(button.dataset.price) });
      draw();
    });
})();
