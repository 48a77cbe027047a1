import { FrameScheme } from './frame-scheme';

/** A page that turns dark in every way a page can. */
const PAGE = `<!doctype html><html><head>
  <style>
    :root { color-scheme: light dark; }
    @layer theme { @media (prefers-color-scheme: dark) and (min-width: 1px) { .media { color: rgb(1, 1, 1); } } }
    @media not all and (prefers-color-scheme: dark) { .plain { color: rgb(2, 2, 2); } }
    @supports (color: red) { @media (prefers-color-scheme: light) { .light { color: rgb(3, 3, 3); } } }
    .both { color: light-dark(rgb(4, 4, 4), rgb(5, 5, 5)); }
    .nested { @media (prefers-color-scheme: dark) { color: rgb(6, 6, 6); } }
    .only { color-scheme: only light; color: light-dark(rgb(7, 7, 7), rgb(8, 8, 8)); }
  </style>
  <style media="(prefers-color-scheme: dark)">.sheet { color: rgb(9, 9, 9); }</style>
</head><body style="color: rgb(0, 0, 0)">
  <p class="media"></p><p class="plain"></p><p class="light"></p><p class="both"></p><p class="nested"></p><p class="only"></p><p class="sheet"></p>
</body></html>`;

describe('FrameScheme', () => {
  let frame: HTMLIFrameElement;
  beforeEach(async () => {
    frame = document.createElement('iframe');
    frame.srcdoc = PAGE;
    const isLoaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    document.body.append(frame);
    await isLoaded;
  });
  afterEach(() => frame.remove());

  function painted(): number[] {
    const content = frame.contentDocument as Document;
    return [...content.querySelectorAll('p')].map((element) =>
      Number(/\d+/.exec(getComputedStyle(element).color)?.[0] ?? -1),
    );
  }

  // Reference: what each rule asks by Media Queries 5 §11.5 and CSS Color Adjustment 1 §2, whatever this machine prefers.
  it('shows a page as to a visitor who prefers a scheme, and back', () => {
    const scheme = new FrameScheme(frame.contentDocument as Document);
    const dark = [1, 0, 0, 5, 6, 7, 9];
    const light = [0, 2, 3, 4, 0, 7, 0];
    for (const wanted of ['dark', 'light', 'dark'] as const) {
      scheme.show(wanted);
      expect(painted())
        .withContext(wanted)
        .toEqual(wanted === 'dark' ? dark : light);
    }
  });

  it('takes in a sheet that is written anew', () => {
    const content = frame.contentDocument as Document;
    const scheme = new FrameScheme(content);
    scheme.show('dark');
    const style = content.head.appendChild(content.createElement('style'));
    style.textContent =
      '@media (prefers-color-scheme: dark) { .media { color: rgb(40, 40, 40); } } @media (prefers-color-scheme: light) { .plain { color: rgb(41, 41, 41); } }';
    scheme.again(style);
    expect(painted().slice(0, 2)).toEqual([40, 0]);
    scheme.show('light');
    expect(painted().slice(0, 2)).toEqual([0, 41]);
  });
});
