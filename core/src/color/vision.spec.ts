import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit } from 'culori';
import { channelsIn } from '../values/convert-color.js';
import { rgb8 } from '../values/color.js';
import { DEUTERANOPIA, PROTANOPIA, TRITANOPIA } from './vision-tables.js';
import { VISIONS, seenAs, visionMatrix } from './vision.js';

const TABLES = { protanopia: PROTANOPIA, deuteranopia: DEUTERANOPIA, tritanopia: TRITANOPIA };

describe('the severity tables', () => {
  // The paper, §5: each row of a matrix sums to one, so that greys stay; the printed digits leave a millionth.
  it('keep greys, in every row', () => {
    for (const [name, table] of Object.entries(TABLES)) {
      expect(table.length).toBe(11);
      for (const m of table)
        for (const at of [0, 3, 6])
          expect(m[at] + m[at + 1] + m[at + 2])
            .withContext(name)
            .toBeCloseTo(1, 4);
    }
  });

  // Source: the authors' page of precomputed matrices, from memory: the last row of each table, and protanopia 0.5.
  it('hold the published figures', () => {
    expect(PROTANOPIA[10]).toEqual([
      0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998,
    ]);
    expect(DEUTERANOPIA[10]).toEqual([
      0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881,
    ]);
    expect(TRITANOPIA[10]).toEqual([
      1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039,
    ]);
    expect(PROTANOPIA[5]).toEqual([
      0.458064, 0.679578, -0.137642, 0.092785, 0.846313, 0.060902, -0.007494, -0.016807, 1.024301,
    ]);
  });
});

describe('seenAs', () => {
  // Reference: the culori library, which is right on the rows (and only there). It applies the matrix to the channels it is
  // given, encoded or not, so it is given linear ones here.
  it('agrees with a second library on the rows of the table', () => {
    const filters = {
      protanopia: filterDeficiencyProt,
      deuteranopia: filterDeficiencyDeuter,
      tritanopia: filterDeficiencyTrit,
    };
    for (const [vision, filter] of Object.entries(filters)) {
      for (let tenth = 0; tenth <= 10; tenth += 1) {
        const m = visionMatrix(vision as 'protanopia', tenth / 10);
        for (const [r, g, b] of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
          [0.4, 0.1, 0.02],
        ]) {
          const wanted = filter(tenth / 10)({ mode: 'rgb', r, g, b }) as unknown as { r: number; g: number; b: number };
          expect(m[0] * r + m[1] * g + m[2] * b)
            .withContext(`${vision} ${tenth / 10}`)
            .toBeCloseTo(wanted.r, 9);
          expect(m[3] * r + m[4] * g + m[5] * b)
            .withContext(`${vision} ${tenth / 10}`)
            .toBeCloseTo(wanted.g, 9);
          expect(m[6] * r + m[7] * g + m[8] * b)
            .withContext(`${vision} ${tenth / 10}`)
            .toBeCloseTo(wanted.b, 9);
        }
      }
    }
  });

  it('moves between the rows: half-way is the mean of its neighbours, and no two severities give one matrix', () => {
    for (const vision of ['protanopia', 'deuteranopia', 'tritanopia'] as const) {
      for (let row = 0; row < 10; row += 1) {
        const [a, b] = [TABLES[vision][row], TABLES[vision][row + 1]];
        const between = visionMatrix(vision, (row + 0.5) / 10);
        between.forEach((value, i) => expect(value).toBeCloseTo((a[i] + b[i]) / 2, 9));
      }
      expect(new Set([0.46, 0.5, 0.54].map((severity) => visionMatrix(vision, severity).join())).size).toBe(3);
    }
  });

  it('is nothing at severity 0 and refuses what is no severity', () => {
    for (const vision of VISIONS) {
      expect(
        channelsIn(seenAs(rgb8(180, 88, 42), vision, 0), 'srgb').map((channel) => Math.round(channel * 255)),
      ).toEqual([180, 88, 42]);
      expect(() => visionMatrix(vision, 1.1)).toThrowError(RangeError);
      expect(() => visionMatrix(vision, Number.NaN)).toThrowError(RangeError);
    }
  });
});
