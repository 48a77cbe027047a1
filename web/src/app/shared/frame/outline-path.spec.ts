import { outlinePath } from './outline-path';

describe('outlinePath', () => {
  // Held against where Chromium says that the path lies (SVG 2, 9.3; getBBox).
  it('goes around each box at its distance', () => {
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    svg.append(path);
    document.body.append(svg);
    const boxes = [
      { left: 10, top: 20, width: 30.333, height: 8 },
      { left: 100.5, top: 60, width: 10, height: 5 },
    ];
    path.setAttribute('d', outlinePath(boxes.slice(0, 1), 2.5));
    const { x, y, width, height } = path.getBBox();
    expect([x, y]).toEqual([7.5, 17.5]);
    expect(width).toBeCloseTo(35.33, 2);
    expect(height).toBeCloseTo(13, 5);
    path.setAttribute('d', outlinePath(boxes, 1));
    const both = path.getBBox();
    expect([both.x, both.y, both.x + both.width, both.y + both.height].map(Math.round)).toEqual([9, 19, 112, 66]);
    const between = new DOMPoint(70, 40);
    expect(path.isPointInFill(between)).toBeFalse();
    expect(path.isPointInFill(new DOMPoint(105, 62))).toBeTrue();
    svg.remove();
  });

  it('is nothing around nothing', () => {
    expect(outlinePath([], 2)).toBe('');
  });
});
