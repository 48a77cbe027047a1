import ColorJs from 'colorjs.io';
import { seededRandom } from '../testing/random.js';
import type { ColorSpace } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';

/** Our spaces with their names in the second library, and the range drawn from. */
const SPACES: readonly (readonly [
  space: ColorSpace,
  theirs: string,
  ranges: readonly (readonly [number, number])[],
])[] = [
  [
    'srgb',
    'srgb',
    [
      [0, 1],
      [0, 1],
      [0, 1],
    ],
  ],
  [
    'srgb-linear',
    'srgb-linear',
    [
      [0, 1],
      [0, 1],
      [0, 1],
    ],
  ],
  [
    'display-p3',
    'p3',
    [
      [0, 1],
      [0, 1],
      [0, 1],
    ],
  ],
  [
    'a98-rgb',
    'a98rgb',
    [
      [0, 1],
      [0, 1],
      [0, 1],
    ],
  ],
  [
    'prophoto-rgb',
    'prophoto',
    [
      [0, 1],
      [0, 1],
      [0, 1],
    ],
  ],
  [
    'xyz-d65',
    'xyz-d65',
    [
      [0, 0.95],
      [0, 1],
      [0, 1.08],
    ],
  ],
  [
    'xyz-d50',
    'xyz-d50',
    [
      [0, 0.96],
      [0, 1],
      [0, 0.82],
    ],
  ],
  [
    'lab',
    'lab',
    [
      [1, 99],
      [-100, 100],
      [-100, 100],
    ],
  ],
  [
    'lch',
    'lch',
    [
      [1, 99],
      [1, 120],
      [0, 360],
    ],
  ],
  [
    'oklab',
    'oklab',
    [
      [0.02, 0.99],
      [-0.3, 0.3],
      [-0.3, 0.3],
    ],
  ],
  [
    'oklch',
    'oklch',
    [
      [0.02, 0.99],
      [0.005, 0.35],
      [0, 360],
    ],
  ],
];
const COLORS = 10_000;
const HUE_AT: Readonly<Record<string, number>> = { lch: 2, oklch: 2 };

// Reference: the colorjs.io library. A hue is compared by the distance it spans, since a hue of no chroma means nothing;
// channels on a scale of 100 are compared on a scale of 1.
describe('conversions between colour spaces', () => {
  it(`agree with a second library within 1e-3 over ${COLORS.toLocaleString('en')} seeded colours`, () => {
    const random = seededRandom(20_261_125);
    let worst = 0;
    let where = '';
    for (let i = 0; i < COLORS; i += 1) {
      const [from, theirFrom, ranges] = SPACES[i % SPACES.length];
      const [to, theirTo] = SPACES[Math.floor(random() * SPACES.length)];
      const channels = ranges.map(([low, high]) => low + random() * (high - low)) as [number, number, number];
      const ours = channelsIn({ space: from, channels, alpha: 1 }, to);
      const theirs = new ColorJs(theirFrom, channels).to(theirTo).coords.map((value) => value ?? 0);
      const scale = to === 'lab' || to === 'lch' ? 100 : 1;
      ours.forEach((value, k) => {
        const isHue = HUE_AT[to] === k;
        const apart = isHue
          ? ((Math.abs(((value - theirs[k] + 540) % 360) - 180) * Math.PI) / 180) * (ours[1] / scale)
          : Math.abs(value - theirs[k]) / scale;
        // Signed powers of colours far outside a gamut grow without bound; the difference is taken relative to them.
        const relative = apart / Math.max(1, Math.abs(theirs[k]) / scale);
        if (relative > worst)
          [worst, where] = [
            relative,
            `${from} ${channels.join(' ')} to ${to}: ${ours.join(' ')} and ${theirs.join(' ')}`,
          ];
      });
    }
    expect(worst).withContext(where).toBeLessThan(1e-3);
  });

  it('give hsl and hwb as the second library does', () => {
    const random = seededRandom(7);
    for (let i = 0; i < 500; i += 1) {
      const channels = [random(), random(), random()] as [number, number, number];
      for (const space of ['hsl', 'hwb'] as const) {
        const theirs = new ColorJs('srgb', channels).to(space).coords;
        channelsIn({ space: 'srgb', channels, alpha: 1 }, space).forEach((value, k) =>
          expect(value)
            .withContext(`${space} of ${channels.join()}`)
            .toBeCloseTo(theirs[k] ?? 0, 3),
        );
      }
    }
  });

  // The second library has the newer text's pure power of 2.4 for rec2020; browsers keep the camera curve of BT.2020.
  // Reference: Chromium 156, `color-mix(in xyz-d65, color(rec2020 .5 .5 .5) 99.999%, black)`.
  it('read rec2020 as browsers do', () => {
    const xyz = channelsIn({ space: 'rec2020', channels: [0.5, 0.5, 0.5], alpha: 1 }, 'xyz-d65');
    [0.24685, 0.259717, 0.282847].forEach((value, k) => expect(xyz[k]).toBeCloseTo(value, 4));
  });
});
