import { spoken } from '@upper-veneer/words';
import Color from 'colorjs.io';
import { hexOf } from '../color/read-notation.js';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import type { Palette, RoleName } from '../veneer/palette.js';
import { settingConflicts } from './conflicts.js';
import { colorOfSetting, notationOf, settingProblem, writtenSetting } from './notation.js';
import { outOfReach } from './out-of-reach.js';
import { SETTING_PATTERNS } from './patterns.js';
import { planSettings, type SettingsPlan } from './plan-settings.js';
import { readSettings, withSettingsRead } from './read-settings.js';
import { settingsCss, unshown } from './settings-css.js';
import type { SettingField, SettingJob, SettingPlace, SettingsSheet, SettingState } from './settings-sheet.js';

const COLORS: Readonly<Record<string, string>> = {
  ground: '#f7f3e9',
  panel: '#ffffff',
  ink: '#1d2b2a',
  'soft-ink': '#5c6b68',
  line: '#cfc6b2',
  accent: '#b4582a',
  'on-accent': '#ffffff',
  second: '#6d8a35',
  'on-second': '#1d2b2a',
  link: '#0f4a48',
};
const ROLES = Object.keys(COLORS) as RoleName[];
const PALETTE: Palette = {
  swatches: ROLES.map((role, i) => ({ id: i + 1, name: role, css: COLORS[role] })),
  roles: ROLES.map((role, i) => ({ role, swatchId: i + 1, shade: 0 })),
  shape: { corner: '3px' },
};

function place(surface: string, job: SettingJob, state: SettingState = 'rest', selector = ''): SettingPlace {
  return { surface, job, state, selector, property: '' };
}

function field(id: string, places: readonly SettingPlace[], more: Partial<SettingField> = {}): SettingField {
  return { id, name: id, notation: 'hex', presets: [], present: '', places, ...more };
}

function sheetOf(fields: readonly SettingField[], more: Partial<SettingsSheet> = {}): SettingsSheet {
  return {
    partId: 1,
    fields,
    fixed: [],
    document: '',
    address: '',
    strategy: 'blend',
    settled: {},
    equal: [],
    handed: {},
    ...more,
  };
}

function textOf(plan: SettingsPlan, id: string): string {
  return plan.fields.find((own) => own.field.id === id)?.text ?? '';
}

describe('notation of a field', () => {
  // Source: CSS Color 4 §5.2 for hex; three numbers of 0 to 255 are its legacy rgb() channels.
  const rows: readonly (readonly [text: string, notation: ReturnType<typeof notationOf>])[] = [
    ['#2f6b4f', 'hex'],
    ['#2F6', 'hex'],
    ['2f6b4f', 'bare-hex'],
    ['47, 107, 79', 'three-numbers'],
    ['47 107 79', 'three-numbers'],
    ['4px', 'px'],
    ['#2f6b4', null],
    ['47, 107', null],
    ['256, 0, 0', null],
    ['expression(alert(1))', null],
  ];
  for (const [text, notation] of rows)
    it(`of "${text}" is ${notation ?? 'none'}`, () => expect(notationOf(text)).toBe(notation));

  it('is written as it is read, in each notation, by a second library too', () => {
    const random = seededRandom(15);
    for (let run = 0; run < 200; run += 1) {
      const channels = [random(), random(), random()].map((share) => Math.floor(share * 256));
      const css = `rgb(${channels.join(' ')})`;
      for (const [notation, present] of [
        ['hex', '#AABBCC'],
        ['bare-hex', ''],
        ['three-numbers', '1;2;3'],
      ] as const) {
        const own = { notation, present, presets: [] };
        const color = colorOfSetting(
          { notation: 'hex', presets: [] },
          new Color(css).to('srgb').toString({ format: 'hex', collapse: false }),
        );
        const text = color ? writtenSetting(own, color) : '';
        expect(spoken(settingProblem(own, text)))
          .withContext(text)
          .toBeNull();
        const back = colorOfSetting(own, text);
        expect(back && hexOf(back))
          .withContext(`${css} as ${text}`)
          .toBe(color && hexOf(color));
      }
    }
    const color = colorOfSetting({ notation: 'hex', presets: [] }, '#0a0b0c');
    expect(color && writtenSetting({ notation: 'hex', present: '#FFAA00' }, color)).toBe('#0A0B0C');
    expect(color && writtenSetting({ notation: 'three-numbers', present: '1;2;3' }, color)).toBe('10;11;12');
  });
});

describe('planSettings', () => {
  const RUNS = runsAsked('SETTINGS_RUNS', 25);

  it(`leaves nothing unreadable that a palette of passing pairs can mend, on ${RUNS} drawn sheets and both strategies`, () => {
    for (let run = 0; run < RUNS; run += 1) {
      const random = seededRandom(900 + run);
      const drawn = (): string =>
        `#${Math.floor(random() * 0x1000000)
          .toString(16)
          .padStart(6, '0')}`;
      const fields = [
        field('ground', [place('form', 'ground')], { present: drawn() }),
        field('text', [place('form', 'text'), place('form', 'heading')], { present: drawn() }),
        field('link', [place('form', 'link')], { present: drawn() }),
        field('fill', [place('button', 'action')], { present: drawn() }),
        field('over', [place('button', 'action', 'hover')], { present: drawn() }),
        field('label', [place('button', 'label')], { present: drawn() }),
      ];
      for (const strategy of ['blend', 'stand-out'] as const) {
        const plan = planSettings(sheetOf(fields, { strategy }), PALETTE);
        const at = `run ${run}, ${strategy}`;
        expect(plan.conflicts).withContext(at).toEqual([]);
        // WCAG 2.2's ratio by colorjs.io, a second library, of the text as it is typed.
        for (const [ink, ground] of [
          ['text', 'ground'],
          ['link', 'ground'],
          ['label', 'fill'],
          ['label', 'over'],
        ])
          expect(new Color(textOf(plan, ink)).contrastWCAG21(new Color(textOf(plan, ground))))
            .withContext(`${at}: ${ink} on ${ground}`)
            .toBeGreaterThanOrEqual(4.5);
      }
    }
  });

  it('takes the page’s ground where it blends in, the accent where it stands out', () => {
    const fields = [
      field('ground', [place('unit', 'ground')], { present: '#ff2d78' }),
      field('words', [place('unit', 'text')], { present: '#ffffff' }),
    ];
    expect(textOf(planSettings(sheetOf(fields), PALETTE), 'ground')).toBe(COLORS['ground']);
    expect(textOf(planSettings(sheetOf(fields, { strategy: 'stand-out' }), PALETTE), 'ground')).toBe(COLORS['accent']);
  });

  it('keeps fields the same that must be, what is settled, and what is left alone', () => {
    const fields = [
      field('a', [place('bar', 'ground')], { present: '#101010' }),
      field('b', [place('foot', 'ground')], { present: '#eeeeee' }),
      field('c', [place('tag', 'ground')], { present: '#123456' }),
      field('d', [place('mark', 'icon')], { present: '#654321' }),
    ];
    const plan = planSettings(
      sheetOf(fields, {
        equal: [['a', 'b']],
        settled: {
          c: { kind: 'leave' },
          d: { kind: 'value', value: { kind: 'role', role: 'second', shade: 0 } },
        },
      }),
      PALETTE,
    );
    expect(textOf(plan, 'a')).toBe(textOf(plan, 'b'));
    expect([textOf(plan, 'c'), textOf(plan, 'd')]).toEqual(['#123456', COLORS['second']]);
  });

  it('takes the preset nearest by ΔE2000 that leaves all readable', () => {
    const presets = [
      { name: 'Snow', css: '#ffffff' },
      { name: 'Butter', css: '#ffe9a8' },
      { name: 'Night', css: '#10131a' },
    ];
    const fields = [
      field('fill', [place('button', 'action')], { present: '#6c3ce9' }),
      field('sign', [place('button', 'label')], { notation: 'preset', presets, present: 'Night' }),
    ];
    const plan = planSettings(sheetOf(fields), PALETTE);
    const sign = plan.fields[1];
    const meant = new Color(sign.preset?.meant ?? '');
    // ΔE2000 by colorjs.io.
    const nearest = [...presets].sort(
      (a, b) => meant.deltaE(new Color(a.css), '2000') - meant.deltaE(new Color(b.css), '2000'),
    )[0];
    expect(sign.text).toBe(nearest.name);
    // It reckons from a white of D50, the core from D65.
    expect(Math.abs((sign.preset?.deltaE ?? NaN) - meant.deltaE(new Color(nearest.css), '2000'))).toBeLessThan(1);
    expect(plan.conflicts).toEqual([]);
    // One preset alone, which cannot be read on the accent: the fill gives way.
    const only = planSettings(
      sheetOf([fields[0], { ...fields[1], presets: [{ name: 'Rust', css: '#b4582a' }], present: 'Rust' }]),
      PALETTE,
    );
    expect(textOf(only, 'sign')).toBe('Rust');
    expect(new Color('#b4582a').contrastWCAG21(new Color(textOf(only, 'fill')))).toBeGreaterThanOrEqual(4.5);
  });

  it('gives corners the house shape, and says what was handed over before the palette changed', () => {
    const corner = field('round', [place('tab', 'corner')], { notation: 'px', present: '0' });
    const fill = field('fill', [place('tab', 'action')], { present: '#112233' });
    const before = planSettings(sheetOf([corner, fill]), PALETTE);
    expect(textOf(before, 'round')).toBe('3');
    const handed = {
      fill: { text: textOf(before, 'fill'), at: '2026-05-04T10:00:00Z' },
      round: { text: '3', at: '2026-05-04T10:00:00Z' },
    };
    const sheet = sheetOf([corner, fill], { handed });
    expect(planSettings(sheet, PALETTE).fields.map(({ handOver }) => handOver)).toEqual(['handed', 'handed']);
    const swatches = PALETTE.swatches.map((own) => (own.name === 'accent' ? { ...own, css: '#8a2be2' } : own));
    expect(planSettings(sheet, { ...PALETTE, swatches }).fields.map(({ handOver }) => handOver)).toEqual([
      'handed',
      'out-of-date',
    ]);
  });

  it('says what one field does to two places, and what nobody can read whatever it is', () => {
    const twice = field('main', [place('bar', 'ground'), place('bar', 'text')], { present: '#224466' });
    const plan = planSettings(sheetOf([twice]), PALETTE);
    expect(spoken(plan.conflicts.map(({ words }) => words))).toEqual([
      'bar: main fills it and is what stands on it, so nothing can be read there',
    ]);
  });

  it('holds what is set against what no field reaches, and says what it did not look at', () => {
    const fixed = [{ ...place('head', 'text'), css: '#ffffff' }];
    const fields = [
      field('head', [place('head', 'ground')], { present: '#ffffff' }),
      field('note', [place('note', 'text')], { present: '#999999' }),
    ];
    const plan = planSettings(sheetOf(fields, { fixed }), PALETTE);
    expect(new Color(textOf(plan, 'head')).contrastWCAG21(new Color('#ffffff'))).toBeGreaterThanOrEqual(4.5);
    expect(spoken(plan.present.map(({ words }) => words))).toEqual([
      'head: what head brings on head comes to 1.0 : 1, 4.5 is asked',
    ]);
    expect(plan.groundless).toEqual(['note']);
    expect(outOfReach({ fixed }, 'framed').map(({ isReached }) => isReached)).toEqual([false, true]);
    expect(outOfReach({ fixed }, 'in page').map(({ isReached }) => isReached)).toEqual([true]);
  });
});

describe('settingConflicts', () => {
  it('looks at each state with what rest leaves there', () => {
    const fields = [
      field('fill', [place('button', 'action')], { present: '#0f4a48' }),
      field('over', [place('button', 'action', 'hover')], { present: '#f7f3e9' }),
      field('label', [place('button', 'label')], { present: '#ffffff' }),
    ];
    const found = settingConflicts({ fields, fixed: [] }, ({ present }) => present);
    expect(found.map(({ state, fields: ids }) => [state, ids])).toEqual([['hover', ['label', 'over']]]);
    // WCAG 2.2, by colorjs.io.
    expect(found[0].ratio).toBeCloseTo(new Color('#ffffff').contrastWCAG21(new Color('#f7f3e9')), 3);
  });
});

describe('readSettings', () => {
  it('reads lists with colons, tabs and equals signs, and says which lines it cannot', () => {
    const { fields, problems } = readSettings(
      'Button: #2f6b4f\nButton text\t255, 255, 255\nCorner = 4px\n\nno value here\nBad: url(javascript:x)\nbutton: #000000',
    );
    expect(fields.map(({ name, notation, present }) => [name, notation, present])).toEqual([
      ['Button', 'hex', '#2f6b4f'],
      ['Button text', 'three-numbers', '255, 255, 255'],
      ['Corner', 'px', '4px'],
    ]);
    expect(spoken(problems.map(({ where }) => where))).toEqual(['line 5', 'line 6', 'line 7']);
  });

  it('reads the documented JSON, and a plain object of names and values', () => {
    const text = JSON.stringify({
      settings: [
        {
          name: 'Sign',
          value: 'Snow',
          presets: [{ name: 'Snow', color: '#fff' }],
          affects: [{ surface: 'bubble', job: 'icon' }],
        },
        { name: 'Broken', notation: 'roman' },
        { value: '#fff' },
      ],
      fixed: [{ surface: 'bubble', job: 'shadow', color: 'no colour' }],
      address: 'javascript:alert(1)',
    });
    const read = readSettings(text);
    expect(read.fields.map(({ name, notation }) => [name, notation])).toEqual([['Sign', 'preset']]);
    expect(spoken(read.problems.map(({ where }) => where))).toEqual([
      'settings[1]',
      'settings[2]',
      'fixed[0].color',
      'address',
    ]);
    expect(readSettings('{ "Button": "#2f6b4f", "Corner": 4 }').fields.map(({ present }) => present)).toEqual([
      '#2f6b4f',
      '4',
    ]);
    expect(spoken(readSettings('{ "settings": ').problems[0].reason)).toContain('is no JSON');
  });

  it('keeps what is settled of fields that are read again', () => {
    const before = sheetOf([field('f1', [place('bar', 'ground')], { name: 'Bar', present: '#111111' })], {
      settled: { f1: { kind: 'leave' } },
    });
    const after = withSettingsRead(before, readSettings('BAR: #222222\nLink: #333333'));
    expect(after.fields.map(({ id, present, places }) => [id, present, places.length])).toEqual([
      ['f1', '#222222', 1],
      ['f2', '#333333', 0],
    ]);
    expect(after.settled).toEqual(before.settled);
  });

  it('ends soon on hostile text', () => {
    const long = `${'a:'.repeat(50_000)}\n${'['.repeat(90_000)}`;
    const begun = Date.now();
    readSettings(long);
    readSettings('['.repeat(190_000));
    readSettings(JSON.stringify({ settings: Array.from({ length: 20_000 }, () => ({ name: 'x' })) }).slice(0, 199_990));
    // A wide bound: what is quadratic takes minutes.
    expect(Date.now() - begun).toBeLessThan(20_000);
  });
});

describe('settingsCss', () => {
  it('writes what a browser reads, rest first, and nothing that could break out', () => {
    const fields = [
      field('over', [place('b', 'action', 'hover', '.go')], { present: '#ff0000' }),
      field('fill', [place('b', 'action', 'rest', '.go')], { present: '#00ff00' }),
      field('hack', [place('b', 'label', 'rest', '.go } body { display: none')], { present: '#0000ff' }),
      field('own', [{ ...place('b', 'shadow', 'rest', 'html'), property: '--deep' }], { present: '#010203' }),
      field('lost', [place('b', 'shadow', 'rest', '.go')], { present: '#010203' }),
    ];
    expect(settingsCss({ fields }, ({ present }) => present)).toBe(
      ':is(.go) { background: rgb(0, 255, 0) !important; }\n:is(html) { --deep: rgb(1, 2, 3) !important; }\n:is(.go):hover { background: rgb(255, 0, 0) !important; }',
    );
    expect(unshown({ fields }).map((entry) => entry.field.id)).toEqual(['hack', 'lost']);
  });
});

describe('patterns to start from', () => {
  it('are filled and readable as they come', () => {
    for (const { id, fields } of spoken(SETTING_PATTERNS)) {
      const plan = planSettings(sheetOf(fields), PALETTE);
      expect(plan.conflicts).withContext(id).toEqual([]);
      expect(plan.fields.filter(({ becomes }) => becomes.kind === 'leave').map((own) => own.field.name))
        .withContext(id)
        .toEqual([]);
    }
  });
});
