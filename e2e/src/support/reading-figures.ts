import type { Page as BrowserPage } from 'playwright-core';

/** What Chromium comes to for a text: its contrast over the fills of its ancestors; `null` where none shows, -1 where a picture or gradient lies under it. */
export type Figure = { readonly ratio: number | null; readonly wanted: number; readonly look: string };

/** Reads every element of a page; WCAG 2.2's formulas, written here once more so that nothing of the core is asked. */
export async function figuresOf(page: BrowserPage): Promise<Figure[]> {
  return page.evaluate(() => {
    type Rgba = [number, number, number, number];
    const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true });
    const cache = new Map<string, Rgba>();
    const read = (text: string): Rgba => {
      const known = cache.get(text);
      if (known || !canvas) return known ?? [0, 0, 0, 0];
      const parts = /^rgba?\(([^)]+)\)$/
        .exec(text)?.[1]
        .split(/[ ,/]+/)
        .map(Number);
      let color: Rgba = parts ? [parts[0], parts[1], parts[2], parts[3] ?? 1] : [0, 0, 0, 1];
      if (!parts) {
        canvas.clearRect(0, 0, 1, 1);
        canvas.fillStyle = text;
        canvas.fillRect(0, 0, 1, 1);
        const [r, g, b, a] = canvas.getImageData(0, 0, 1, 1).data;
        color = [r, g, b, a / 255];
      }
      cache.set(text, color);
      return color;
    };
    const over = (a: Rgba, b: Rgba, opacity = 1): Rgba => {
      const alpha = a[3] * opacity;
      return [0, 1, 2].map((i) => a[i] * alpha + b[i] * (1 - alpha)).concat(1) as Rgba;
    };
    const light = (c: Rgba): number =>
      [0.2126, 0.7152, 0.0722].reduce(
        (sum, weight, i) =>
          sum + weight * (c[i] / 255 <= 0.04045 ? c[i] / 255 / 12.92 : ((c[i] / 255 + 0.055) / 1.055) ** 2.4),
        0,
      );
    return [...document.querySelectorAll('*')].map((element) => {
      const style = getComputedStyle(element);
      const own = [...element.childNodes].some((node) => node.nodeType === 3 && (node.nodeValue ?? '').trim() !== '');
      const isOff =
        element.closest(':disabled, fieldset[disabled], option[disabled], [aria-disabled="true"], .disabled') !== null;
      let isShown = true;
      let isPlain = true;
      const chain: CSSStyleDeclaration[] = [];
      for (let node: Element | null = element; node; node = node.parentElement) {
        const at = getComputedStyle(node);
        if (at.display === 'none') isShown = false;
        if (at.backgroundImage !== 'none') isPlain = false;
        chain.unshift(at);
      }
      if (
        !own ||
        !isShown ||
        isOff ||
        style.visibility !== 'visible' ||
        style.fontSize === '0px' ||
        element.closest('select, textarea, head, script, style')
      )
        return { ratio: null, wanted: 4.5, look: '' };
      const paint = (i: number, behind: Rgba): [Rgba, Rgba] => {
        if (i === chain.length) return [behind, over(read(style.color), behind)];
        const inner = paint(i + 1, over(read(chain[i].backgroundColor), behind));
        const opacity = Number(chain[i].opacity);
        return opacity < 1 ? [over(inner[0], behind, opacity), over(inner[1], behind, opacity)] : inner;
      };
      const [ground, ink] = paint(0, [255, 255, 255, 1]);
      const [high, low] = [light(ground), light(ink)].sort((a, b) => b - a);
      const size = Number.parseFloat(style.fontSize);
      return {
        ratio: isPlain ? (high + 0.05) / (low + 0.05) : -1,
        wanted: size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 700) ? 3 : 4.5,
        look: `${ground.map(Math.round).join()}|${ink.map(Math.round).join()}`,
      };
    });
  });
}
