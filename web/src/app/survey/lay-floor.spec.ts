import { layFloor } from './lay-floor';

describe('layFloor', () => {
  const lengthOf = (boards: ReturnType<typeof layFloor>, key: string): number => boards.filter(({ of }) => of === key).reduce((sum, { width }) => sum + width, 0);

  it('gives each thing a length in proportion to its size, and fills the floor', () => {
    const boards = layFloor([{ key: 'a', size: 60 }, { key: 'b', size: 30 }, { key: 'c', size: 10 }], 100, 4);
    expect(lengthOf(boards, 'a')).toBeCloseTo(240, 6);
    expect(lengthOf(boards, 'b')).toBeCloseTo(120, 6);
    expect(lengthOf(boards, 'c')).toBeCloseTo(40, 6);
    expect(boards.filter(({ isFirst }) => isFirst).map(({ of }) => of)).toEqual(['a', 'b', 'c']);
  });

  it('cuts at the ends of rows and never overlaps', () => {
    const things = Array.from({ length: 60 }, (_, i) => ({ key: `t${i}`, size: (i * 37) % 23 + 0.01 }));
    const boards = layFloor(things, 300, 5);
    for (const board of boards) expect(board.left + board.width).toBeLessThanOrEqual(300.001);
    for (let row = 0; row < 5; row += 1) {
      const own = boards.filter((board) => board.row === row).sort((a, b) => a.left - b.left);
      own.slice(1).forEach((board, i) => expect(board.left).toBeGreaterThanOrEqual(own[i].left + own[i].width - 0.001));
    }
  });

  it('keeps the smallest wide enough to point at', () => {
    const boards = layFloor([{ key: 'all', size: 1e9 }, ...Array.from({ length: 40 }, (_, i) => ({ key: `dot${i}`, size: 1 }))], 500, 3);
    for (let i = 0; i < 39; i += 1) expect(lengthOf(boards, `dot${i}`)).toBeGreaterThanOrEqual(3.9);
  });

  it('is empty for nothing', () => {
    expect(layFloor([], 300, 3)).toEqual([]);
  });
});
