import { THE_REST, layFloor } from './lay-floor';

describe('layFloor', () => {
  const lengthOf = (boards: ReturnType<typeof layFloor>, key: string): number =>
    boards.filter(({ of }) => of === key).reduce((sum, { width }) => sum + width, 0);

  it('gives each thing a length in proportion to its size, and fills the floor but for the ends of rows', () => {
    const boards = layFloor(
      [
        { key: 'a', size: 60 },
        { key: 'b', size: 30 },
        { key: 'c', size: 10 },
      ],
      300,
      4,
    );
    const all = lengthOf(boards, 'a') + lengthOf(boards, 'b') + lengthOf(boards, 'c');
    expect(all).toBeGreaterThan(4 * 300 - 3 * 24 - 0.01);
    // What the ends of rows leave over goes to the last.
    expect(lengthOf(boards, 'a') / lengthOf(boards, 'b')).toBeCloseTo(2, 6);
    expect(lengthOf(boards, 'a') / all).toBeGreaterThan(0.55);
    expect(boards.filter(({ isFirst }) => isFirst).map(({ of }) => of)).toEqual(['a', 'b', 'c']);
  });

  it('cuts at the ends of rows and never overlaps', () => {
    const things = Array.from({ length: 60 }, (_, i) => ({ key: `t${i}`, size: ((i * 37) % 23) + 0.01 }));
    const boards = layFloor(things, 300, 5);
    for (const board of boards) expect(board.left + board.width).toBeLessThanOrEqual(300.001);
    for (let row = 0; row < 5; row += 1) {
      const own = boards.filter((board) => board.row === row).sort((a, b) => a.left - b.left);
      own.slice(1).forEach((board, i) => expect(board.left).toBeGreaterThanOrEqual(own[i].left + own[i].width - 0.001));
    }
  });

  it('has no board too narrow to press, whatever the sizes; the smallest share one', () => {
    for (let seed = 1; seed < 60; seed += 1) {
      const things = Array.from({ length: seed * 3 }, (_, i) => ({
        key: `t${i}`,
        size: ((i * 7919 * seed) % 997) ** 2 + 0.01,
      }));
      const boards = layFloor(things, 240 + seed * 7, 5);
      for (const { width } of boards) expect(width).toBeGreaterThanOrEqual(23.99);
      const own = new Set(boards.map(({ of }) => of));
      expect(things.every(({ key }) => own.has(key)) || own.has(THE_REST)).toBeTrue();
    }
    const dots = layFloor(
      [{ key: 'all', size: 1e9 }, ...Array.from({ length: 40 }, (_, i) => ({ key: `dot${i}`, size: 1 }))],
      500,
      3,
    );
    expect([...new Set(dots.map(({ of }) => of))]).toEqual(['all', THE_REST]);
  });

  it('is empty for nothing', () => {
    expect(layFloor([], 300, 3)).toEqual([]);
  });
});
