import { setUpBench } from '../support/on-bench.js';

const WILLOW = 'rgb(180, 88, 42)';
const RIVER = 'rgb(15, 74, 72)';
const CHALK = 'rgb(255, 255, 255)';

// What is read back is the frame's own engine; states are forced there as the Bench shows them.
describe('the Bench, by pointer,', () => {
  const on = setUpBench();

  it('gives a link in text its five states', async () => {
    await on.bench.choose('.lede a');
    for (const [state, swatch] of [
      ['rest', 'River'],
      ['visited', 'Plum'],
      ['hover', 'Willow'],
      ['focus', 'Ink'],
      ['pressed', 'Signal'],
    ] as const) {
      await on.bench.cell(`Text, ${state}`);
      if (
        (await on.bench.page.locator('uv-value-picker').getByRole('button', { name: swatch, exact: true }).count()) > 0
      )
        await on.bench.value(swatch);
      else await on.bench.typed('#8a3324');
      expect(await on.bench.verdict()).toMatch(/reaches \d+ of \d+/);
      expect(await on.bench.verdict()).toContain('no spill');
    }
    const sheet = await on.bench.page.evaluate(
      async () =>
        ((await (await fetch('/api/sites/1/draft')).json()) as { overrides: { state: string; selector: string }[] })
          .overrides,
    );
    expect(sheet.map(({ state }) => state).sort()).toEqual(['active', 'focus', 'hover', 'rest', 'visited']);
    expect(sheet.find(({ state }) => state === 'visited')?.selector).toContain(':visited');
  });

  it('overrides a button whose theme hover is stronger, told what is left behind and mending it in one press', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    expect(await on.bench.verdict()).toContain('hover still #5b50ee');
    await on.bench.act('Hover: Willow, 12 darker');
    expect(await on.bench.verdict()).not.toContain('hover still');
    await on.bench.cell('Fill, hover');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(138, 54, 0)');
    expect(await on.bench.css()).toContain(':hover {');
  });

  it('offers the companions of a new ground and takes them', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    expect(await on.bench.page.locator('uv-companions-list li').allInnerTexts()).toEqual([
      jasmine.stringContaining('needs 4.5'),
    ]);
    await on.bench.act('Take all');
    expect(await on.bench.framed('.qs-go', 'color')).toBe(CHALK);
    expect(await on.bench.page.locator('uv-companions-list').count()).toBe(0);
  });

  it('recolours an icon in ::before, said to be a glyph', async () => {
    await on.bench.choose('.notice');
    await on.bench.step('::before');
    expect(await on.bench.page.locator('uv-cell-editor .icon').innerText()).toContain('glyph');
    await on.bench.value('River');
    expect(await on.bench.framedPart('.notice', 'color', '::before')).toBe(RIVER);
  });

  it('gives a sale price’s strike-through a colour of its own', async () => {
    await on.bench.openPage('Trips');
    await on.bench.find('.price s');
    await on.bench.cell('Decoration, rest');
    await on.bench.value('Willow');
    expect(await on.bench.framed('.price s', 'text-decoration-color')).toBe(WILLOW);
    expect(await on.bench.framed('.price s', 'color')).toBe('rgb(119, 119, 119)');
    await on.bench.property('thickness');
    await on.bench.measure('2px');
    expect(await on.bench.framed('.price s', 'text-decoration-thickness')).toBe('2px');
  });

  it('styles the current page of a paging list apart from the others', async () => {
    await on.bench.openPage('Trips');
    await on.bench.find('.pager li:nth-child(3) a');
    await on.bench.value('Chalk');
    await on.bench.cell('Fill, current page');
    await on.bench.value('Willow');
    expect(await on.bench.framed('.pager .is-current a', 'background-color')).toBe(WILLOW);
    expect(await on.bench.css()).toContain('.is-current');
    await on.bench.cell('Fill, rest');
    expect(await on.bench.framed('.pager li:nth-child(3) a', 'background-color')).toBe(CHALK);
    expect(await on.bench.framed('.pager .is-current a', 'background-color')).toBe(WILLOW);
  });

  it('binds the stops of a gradient button to the palette, and clears the gradient where a plain fill is wanted', async () => {
    await on.bench.openPage('Home');
    await on.bench.find('.hero .btn');
    await on.bench.cell('Gradient, rest');
    await on.bench.value('Willow');
    expect(await on.bench.framed('.hero .btn', 'background-image')).toContain(WILLOW);
    await on.bench.act('Clear it');
    expect(await on.bench.framed('.hero .btn', 'background-image')).toBe('none');
  });

  it('lays an overlay over the picture behind a heading, in the brand’s colour', async () => {
    await on.bench.openPage('Home');
    await on.bench.find('.hero h1');
    await on.bench.step('section.hero');
    await on.bench.cell('Gradient, rest');
    await on.bench.act('Overlay over the picture');
    const image = await on.bench.framed('.hero', 'background-image');
    expect(image).toContain('linear-gradient');
    expect(image).toContain('river-morning.svg');
    // The theme's sheet stands a folder deeper than the veneer: the picture is the same file still, for the frame and for visitors.
    const file = /url\("([^"]+river-morning\.svg)"/.exec(image)?.[1] ?? '';
    expect((await on.bench.page.request.get(file)).status()).toBe(200);
    const css = await on.bench.css();
    expect(css).toContain('color-mix(in srgb');
    expect(/url\("?([^")]+)/.exec(css)?.[1]).toBe('img/river-morning.svg');
  });

  it('colours selected text on every page', async () => {
    await on.bench.page.getByRole('button', { name: 'Text highlight' }).click();
    await on.bench.page.waitForSelector('uv-states-grid');
    await on.bench.settled();
    await on.bench.value('River');
    expect(await on.bench.css()).toContain('::selection {');
    expect(await on.bench.framedPart('p', 'background-color', '::selection')).toBe(RIVER);
    expect(await on.bench.framedPart('button', 'background-color', '::selection')).toBe(RIVER);
  });

  it('colours the scrollbar, each engine by what it knows', async () => {
    await on.bench.page.getByRole('button', { name: 'Scrollbar' }).click();
    await on.bench.page.waitForSelector('uv-states-grid');
    await on.bench.settled();
    await on.bench.value('River');
    await on.bench.cell('Track, rest');
    await on.bench.value('Paper');
    expect(await on.bench.verdict()).toMatch(/thumb \d+\.\d : 1 on its track/);
    await on.bench.cell('Thumb, over, rest');
    await on.bench.value('Willow');
    const css = await on.bench.page.evaluate(
      () =>
        document
          .querySelector<HTMLIFrameElement>('uv-page-frame iframe')
          ?.contentDocument?.querySelector('style[data-uv-veneer]')?.textContent ?? '',
    );
    expect(css).toContain('@supports selector(::-webkit-scrollbar)');
    expect(css).toContain('@supports not selector(::-webkit-scrollbar)');
    expect(css).toContain('scrollbar-color: var(--brand-river) var(--brand-paper)');
    expect(css).toContain('::-webkit-scrollbar-thumb:hover {');
    expect(await on.bench.framedPart('html', 'background-color', '::-webkit-scrollbar-thumb')).toBe(RIVER);
    expect(await on.bench.page.locator('uv-page-frame iframe').first().getAttribute('scrolling')).toBe('yes');
  });

  it('reaches into a shadow tree by its part names and its custom properties, and says what it cannot reach', async () => {
    await on.bench.openPage('Home');
    await on.bench.find('river-level');
    const current = (): Promise<string> => on.bench.page.locator('uv-lineage-bar .current').innerText();
    for (let i = 0; i < 4 && !(await current()).includes('strong'); i += 1) {
      await on.bench.page.locator('uv-page-frame .glass').focus();
      await on.bench.page.keyboard.press('ArrowDown');
      await on.bench.settled();
      if ((await current()).includes('bar')) break;
    }
    expect(await on.bench.page.locator('uv-cell-editor').innerText()).toContain('shadow root');
    await on.bench.value('Willow');
    expect(await on.bench.css()).toMatch(/::part\(|--level/);
  });

  it('gives a drawn switch a look for off, on and locked, pointed at through its unseen input', async () => {
    await on.bench.openPage('Members');
    await on.bench.find('.pref-track');
    expect(await on.bench.page.locator('uv-states-grid thead th').allInnerTexts()).toEqual(
      jasmine.arrayContaining(['Rest', 'Checked', 'Off', 'Checked, off']),
    );
    await on.bench.cell('Fill, checked');
    await on.bench.value('River');
    expect(await on.bench.css()).toContain('.pref-tick:checked + .pref-track {');
    expect(await on.bench.verdict()).toMatch(/reaches 2 of 2[\s\S]*no spill/);
    // As the page stands: off, on, and on but locked, which keeps the theme's.
    const tracks = (): Promise<string[]> =>
      Promise.all([1, 2, 3].map((at) => on.bench.framed(`.pref:nth-of-type(${at}) .pref-track`, 'background-color')));
    expect(await tracks()).toEqual([RIVER, RIVER, 'rgb(169, 198, 234)']);
    await on.bench.cell('Fill, rest');
    expect(await tracks()).toEqual(['rgb(185, 189, 196)', RIVER, 'rgb(169, 198, 234)']);
    await on.bench.value('Willow');
    expect(await on.bench.verdict()).toContain('hides that input.pref-tick is checked');
    await on.bench.act(/^Where input\.pref-tick is checked:/);
    expect((await tracks()).slice(0, 2)).toEqual([WILLOW, RIVER]);
  });
});
