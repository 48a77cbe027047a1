import { spoken } from '@upper-veneer/words';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import { anytimeRange, boundary, mixtureScale } from './confidence-sequence.js';
import type { DayCount } from './counts.js';
import { differingDays } from './differing-days.js';
import { evenSplit } from './even-split.js';
import { differenceInterval, rateOf, scoreInterval, type Counted } from './intervals.js';
import { judgeTrial } from './judge-trial.js';
import { readCounts } from './read-counts.js';
import { sampleSize } from './sample-size.js';
import { madeUpTraffic } from './traffic.js';

const counted = (pressed: number, seen: number): Counted => ({ pressed, seen });

describe('scoreInterval', () => {
  // Source: Newcombe, Statistics in Medicine 17 (1998) 857–872, Table I, method 3.
  const rows: readonly (readonly [pressed: number, seen: number, low: number, high: number])[] = [
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ];
  for (const [pressed, seen, low, high] of rows)
    it(`of ${pressed} of ${seen}`, () => {
      const range = scoreInterval(counted(pressed, seen));
      expect(range[0]).toBeCloseTo(low, 4);
      expect(range[1]).toBeCloseTo(high, 4);
    });

  it('is all there can be for nobody', () => expect(scoreInterval(counted(0, 0))).toEqual([0, 1]));
});

describe('differenceInterval', () => {
  // Source: Newcombe, Statistics in Medicine 17 (1998) 873–890, Table II, method 10.
  const rows: readonly (readonly [first: Counted, second: Counted, low: number, high: number])[] = [
    [counted(56, 70), counted(48, 80), 0.0524, 0.3339],
    [counted(9, 10), counted(3, 10), 0.1705, 0.809],
    [counted(6, 7), counted(2, 7), 0.0582, 0.8062],
    [counted(5, 56), counted(0, 29), -0.0381, 0.1926],
    [counted(0, 10), counted(0, 20), -0.1611, 0.2775],
    [counted(0, 10), counted(0, 10), -0.2775, 0.2775],
    [counted(10, 10), counted(0, 20), 0.6791, 1],
    [counted(10, 10), counted(0, 10), 0.6075, 1],
  ];
  for (const [first, second, low, high] of rows)
    it(`of ${first.pressed}/${first.seen} − ${second.pressed}/${second.seen}`, () => {
      const range = differenceInterval(second, first);
      expect(range[0]).toBeCloseTo(low, 4);
      expect(range[1]).toBeCloseTo(high, 4);
    });
});

describe('sampleSize', () => {
  // Source: Fleiss, Statistical Methods for Rates and Proportions, Table A.3 (two-sided 5 %), from memory.
  const rows: readonly (readonly [base: number, other: number, power: number, size: number])[] = [
    [0.05, 0.1, 0.8, 474],
    [0.6, 0.7, 0.8, 376],
    [0.25, 0.4, 0.8, 165],
    [0.05, 0.1, 0.9, 621],
  ];
  for (const [base, other, power, size] of rows)
    it(`from ${base} to ${other} with power ${power}`, () => {
      // Tables were made with quantiles of two or three digits.
      expect(Math.abs(sampleSize({ base, smallest: other - base, alpha: 0.05, power }) - size)).toBeLessThanOrEqual(1);
    });

  it('is refused for rates that are none', () => {
    for (const [base, smallest] of [
      [0, 0.1],
      [0.95, 0.1],
      [0.2, 0],
      [Number.NaN, 0.1],
    ])
      expect(() => sampleSize({ base, smallest, alpha: 0.05, power: 0.8 })).toThrowError(RangeError);
  });
});

describe('evenSplit', () => {
  it('finds what is broken', () => {
    // Source: Kohavi, Tang, Xu, Trustworthy Online Controlled Experiments (2020), chapter 3: 821,588 and 815,482, p 1.8e-6.
    expect(evenSplit([821_588, 815_482])).toBeCloseTo(1.8e-6, 7);
    expect(evenSplit([500, 500])).toBeCloseTo(1, 10);
    expect(evenSplit([0, 0])).toBe(1);
  });

  it('is the chi-square test of more than two', () => {
    // Source: chi-square table, 5.991 at 2 degrees of freedom leaves 5 % above.
    const off = Math.sqrt((5.991 * 1000) / 2);
    expect(evenSplit([1000 + off, 1000 - off, 1000])).toBeCloseTo(0.05, 3);
  });
});

describe('anytimeRange', () => {
  it('lies where the normal mixture of likelihood ratios reaches 1/α', () => {
    // Source: Robbins, Annals of Mathematical Statistics 41 (1970) 1397–1409: the mixture's integral, taken here by the trapezoid rule.
    for (const t of [50, 1000, 20_000])
      for (const alpha of [0.05, 0.01]) {
        const rho = mixtureScale(5000, alpha);
        const sum = t * boundary(t, rho, alpha);
        const steps = 200_000;
        const wide = 12 * rho;
        let integral = 0;
        for (let i = 0; i <= steps; i += 1) {
          const lambda = -wide + (2 * wide * i) / steps;
          const density = Math.exp(-(lambda ** 2) / (2 * rho ** 2)) / (rho * Math.sqrt(2 * Math.PI));
          integral += density * Math.exp(lambda * sum - (lambda ** 2 * t) / 2) * (i === 0 || i === steps ? 0.5 : 1);
        }
        expect((integral * 2 * wide) / steps)
          .withContext(`t ${t}, α ${alpha}`)
          .toBeCloseTo(1 / alpha, 3);
      }
  });

  it('is narrowest near what it was planned for', () => {
    const widths = [200, 1000, 5000, 25_000, 125_000].map((planned) =>
      boundary(5000, mixtureScale(planned, 0.05), 0.05),
    );
    expect(Math.min(...widths)).toBe(widths[2]);
  });

  const RUNS = runsAsked('TRIAL_RUNS', 600);

  it(`calls a difference that is none in at most 5 % of ${RUNS} trials looked at on each of 30 days`, () => {
    const random = seededRandom(2024);
    const size = sampleSize({ base: 0.04, smallest: 0.01, alpha: 0.05, power: 0.8 });
    let called = 0;
    for (let run = 0; run < RUNS; run += 1) {
      const sums = [counted(0, 0), counted(0, 0)];
      for (let day = 0; day < 30; day += 1) {
        sums.forEach((own, i) => (sums[i] = drawn(own, 300, 0.04, random)));
        const [low, high] = anytimeRange(sums[0], sums[1], 2 * size);
        if (low > 0 || high < 0) {
          called += 1;
          break;
        }
      }
    }
    expect(called / RUNS).toBeLessThanOrEqual(0.05);
  });

  it(`leaves the planned power at the planned size, in ${RUNS} trials`, () => {
    const random = seededRandom(77);
    const size = sampleSize({ base: 0.04, smallest: 0.02, alpha: 0.05, power: 0.8 });
    let found = 0;
    for (let run = 0; run < RUNS; run += 1) {
      const [a, b] = [drawn(counted(0, 0), size, 0.04, random), drawn(counted(0, 0), size, 0.06, random)];
      if (differenceInterval(a, b)[0] > 0) found += 1;
    }
    // A share of so few draws has an error of its own; the whole run, in prove, has 4,000.
    const error = RUNS < 4000 ? 2 * Math.sqrt((0.8 * 0.2) / RUNS) : 0;
    expect(found / RUNS).toBeGreaterThanOrEqual(0.8 - error);
  });

  it('says nothing before both were seen', () =>
    expect(anytimeRange(counted(0, 0), counted(1, 1), 100)).toEqual([-1, 1]));
});

describe('differingDays', () => {
  it('names the day on which it turns, and none where all are alike', () => {
    const wish = { from: '2026-05-04', days: 28, visitors: 3000, weekdays: [1, 1, 1, 1, 1, 1, 1] };
    const alike = madeUpTraffic({ ...wish, rates: { A: 0.05, B: 0.06 } }, seededRandom(5));
    expect(differingDays(alike, 'A', 'B')).toEqual([]);
    // Mondays: B is pressed three times as often.
    const turned = alike.map((own) =>
      own.variation === 'B' && new Date(own.day).getUTCDay() === 1 ? { ...own, pressed: own.pressed * 3 } : own,
    );
    expect(differingDays(turned, 'A', 'B').map(({ weekday }) => weekday)).toEqual([0]);
  });
});

describe('judgeTrial', () => {
  const plan = { base: 0.04, smallest: 0.01, alpha: 0.05, power: 0.8, variations: ['A', 'B'], conversions: 1 };
  const day = (variation: string, seen: number, pressed: number, on = '2026-05-04'): DayCount => ({
    day: on,
    variation,
    seen,
    pressed,
  });

  it('calls what is clear, and from which day', () => {
    const counts = ['2026-05-04', '2026-05-05', '2026-05-06'].flatMap((on) => [
      day('A', 1000, 40, on),
      day('B', 1000, 80, on),
    ]);
    const { call, pairs } = judgeTrial(counts, plan);
    expect(call).toEqual({ kind: 'better', variation: 'B' });
    expect(pairs[0].clearFrom).toBe(pairs[0].days.find(({ anytime }) => anytime[0] > 0)?.day ?? '');
    expect(
      judgeTrial(
        counts.map((own) => ({ ...own, variation: own.variation === 'A' ? 'B' : 'A' })),
        plan,
      ).call,
    ).toEqual({
      kind: 'better',
      variation: 'A',
    });
  });

  it('calls nothing where the split is broken, however clear it seems', () => {
    expect(judgeTrial([day('A', 2000, 40), day('B', 1000, 200)], plan).call).toEqual({ kind: 'broken' });
  });

  it('stays open until the size is reached, then says that no difference worth having is left', () => {
    const { size } = judgeTrial([], plan);
    expect(judgeTrial([], plan).call).toEqual({ kind: 'open' });
    const many = 8 * size;
    const counts = [day('A', many, Math.round(many * 0.04)), day('B', many, Math.round(many * 0.0401))];
    expect(judgeTrial(counts, plan).call).toEqual({ kind: 'none' });
    expect(judgeTrial([day('A', 100, 4), day('B', 100, 4)], plan).pairs[0].fixed).toBeNull();
  });

  it('widens its ranges where winners are looked for among many', () => {
    const counts = [day('A', 1000, 40), day('B', 1000, 60), day('C', 1000, 50)];
    const one = judgeTrial(counts.slice(0, 2), plan).pairs[0].anytime;
    const three = judgeTrial(counts, { ...plan, variations: ['A', 'B', 'C'], conversions: 2 });
    expect(three.questions).toBe(4);
    expect(three.pairs[0].anytime[0]).toBeLessThan(one[0]);
  });
});

describe('readCounts', () => {
  it('reads CSV with its columns in any order, quoted or not', () => {
    const { counts, problems } = readCounts(
      '\ufeffvariation,day,pressed,seen\r\n"A",2026-05-04,3,100\r\nb,2026-05-04,4,101\r\n',
      ['A', 'B'],
    );
    expect(problems).toEqual([]);
    expect(counts).toEqual([
      { day: '2026-05-04', variation: 'A', seen: 100, pressed: 3 },
      { day: '2026-05-04', variation: 'B', seen: 101, pressed: 4 },
    ]);
  });

  it('says which lines it leaves out, and why', () => {
    const text =
      'day,variation,seen,pressed\n2026-02-30,A,1,1\n2026-05-04,C,1,1\n2026-05-04,A,1,2\n2026-05-04,A,x,1\n2026-05-04,A,9,1\n2026-05-04,A,9,1';
    const { counts, problems } = readCounts(text, ['A', 'B']);
    expect(counts.length).toBe(1);
    expect(spoken(problems.map(({ where }) => where))).toEqual(['line 2', 'line 3', 'line 4', 'line 5', 'line 7']);
    expect(spoken(readCounts('a,b\n1,2', ['A']).problems[0].reason)).toBe(
      'has no column day, variation, seen, pressed',
    );
  });
});

describe('madeUpTraffic', () => {
  it('has the rates and weekdays it was wished for', () => {
    const counts = madeUpTraffic(
      { from: '2026-05-04', days: 14, visitors: 4000, rates: { A: 0.1, B: 0.2 }, weekdays: [2, 1, 1, 1, 1, 1, 0] },
      seededRandom(9),
    );
    expect(counts.filter(({ day: on }) => on === '2026-05-10').every(({ seen }) => seen === 0)).toBeTrue();
    expect(counts.filter(({ day: on }) => on === '2026-05-04').reduce((sum, { seen }) => sum + seen, 0)).toBe(8000);
    for (const [name, rate] of [
      ['A', 0.1],
      ['B', 0.2],
    ] as const) {
      const own = counts.filter(({ variation }) => variation === name);
      const all = own.reduce(
        (sum, { seen, pressed }) => counted(sum.pressed + pressed, sum.seen + seen),
        counted(0, 0),
      );
      expect(Math.abs(rateOf(all) - rate)).toBeLessThan(0.01);
    }
  });
});

/** A day's visitors more, each pressing by itself. */
function drawn({ seen, pressed }: Counted, visitors: number, rate: number, random: () => number): Counted {
  let more = 0;
  for (let i = 0; i < visitors; i += 1) if (random() < rate) more += 1;
  return counted(pressed + more, seen + visitors);
}
