// A consent bar as its maker ships it: put in a second after the page, its rules written one by one.
(() => {
  const choice = localStorage.getItem('cb-choice');
  const sheet = document.head.appendChild(document.createElement('style')).sheet;
  const rules = [
    '#cb-holder { position: fixed; left: 24px; bottom: 20px; z-index: 50; max-width: 520px; }',
    '#cb-holder .cb-bar { display: flex; gap: 14px; align-items: center; padding: 16px 18px; border-radius: 10px; background: #2b2b36; color: #f1f1f5; font: 14px/1.4 sans-serif; }',
    '#cb-holder .cb-btn { flex: none; border: 0; border-radius: 6px; padding: 10px 16px; background: #3e7bfa !important; color: #fff; font: 700 14px/1 sans-serif; cursor: pointer; }',
    '#cb-holder .cb-btn:hover { background: #6a9bff !important; }',
    '#cb-holder .cb-btn.cb-ghost { background: transparent !important; color: #c9c9d6; border: 1px solid #55556a; }',
    '#cb-holder .cb-again { border: 1px solid #55556a; border-radius: 18px; padding: 8px 14px; background: #fff; color: #2b2b36; font: 13px/1 sans-serif; cursor: pointer; }',
    '.cb-thanks { margin: 0; padding: 10px 16px; background: #eaf1ff; color: #1b3a80; font: 14px/1.4 sans-serif; text-align: center; }',
  ];
  for (const rule of rules) sheet.insertRule(rule, sheet.cssRules.length);
  const settled = (words) => {
    const holder = document.getElementById('cb-holder') ?? document.body.appendChild(document.createElement('div'));
    holder.id = 'cb-holder';
    holder.innerHTML = '<button type="button" class="cb-again">Cookie settings</button>';
    if (words) {
      const thanks = document.createElement('p');
      thanks.className = 'cb-thanks';
      thanks.textContent = words;
      document.body.prepend(thanks);
    }
  };
  const choose = (what) => {
    localStorage.setItem('cb-choice', what);
    // A map and a film of the river come for those who accept.
    settled(what === 'all' ? 'Thank you: the river film is shown to you now.' : '');
  };
  setTimeout(() => {
    if (choice !== null) {
      settled('');
      return;
    }
    const holder = document.createElement('div');
    holder.id = 'cb-holder';
    holder.innerHTML =
      '<div class="cb-bar css-1q8vd3k" role="region" aria-label="Cookies"><span>We use a few cookies to keep your place.</span><button type="button" class="cb-btn">Accept</button><button type="button" class="cb-btn cb-ghost">Only needed</button></div>';
    holder.querySelector('.cb-btn').addEventListener('click', () => choose('all'));
    holder.querySelector('.cb-ghost').addEventListener('click', () => choose('needed'));
    document.body.append(holder);
  }, 1000);
})();
