import { spoken } from '@upper-veneer/words';
import { openOnePage } from '../testing/one-page-site.js';
import type { Palette } from '../veneer/palette.js';
import { foundColors } from './find-colors.js';
import type { FoundColors } from './found-color.js';
import type { MatchChoices, MatchProposal } from './proposal.js';
import { proposeMatch } from './propose-match.js';
import { placeId, regroup } from './regroup.js';
import { staleChoices, withoutStale } from './stale-choices.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Paper', css: '#f7f3e9' },
    { id: 2, name: 'Ink', css: '#1d2b2a' },
    { id: 3, name: 'Willow', css: '#8f3f16' },
  ],
  roles: [
    { role: 'ground', swatchId: 1, shade: 0 },
    { role: 'ink', swatchId: 2, shade: 0 },
    { role: 'accent', swatchId: 3, shade: 0 },
  ],
};
const SITE = { kind: 'site' } as const;
const site = openOnePage(
  'body { background: #ffffff } .a { background: #efeaff; color: #333333 } .b { color: #3a3a5c } .b:hover { color: #5b3fc4 }',
  '<p class=a>One</p><p class=a>Two</p><p class=b>Three</p>',
  PALETTE,
);
const found = foundColors(site, SITE, 1280);
const row = (of: FoundColors, id: string): FoundColors['rows'][number] => {
  const own = of.rows.find((candidate) => candidate.id === id);
  if (!own) throw new Error(`No row ${id} among ${of.rows.map((candidate) => candidate.id).join(', ')}`);
  return own;
};
const becomes = (proposal: MatchProposal, id: string): string =>
  proposal.rows.find((candidate) => candidate.found.id === id)?.css ?? 'none';

/** The row of the first place set apart, named by it. */
const APART = `ground #efeaff apart ${placeId(row(found, 'ground #efeaff').places[0])}`;

describe('rows of found colours', () => {
  it('are split by place: the places go over, what the row met both halves meet', () => {
    const [first] = row(found, 'ground #efeaff').places;
    const split = regroup(site, found, { apart: [{ row: 'ground #efeaff', places: [placeId(first)] }] });
    expect(row(split, APART).places).toEqual([first]);
    expect(row(split, 'ground #efeaff').places.length).toBe(row(found, 'ground #efeaff').places.length - 1);
    expect(spoken([row(split, 'ground #efeaff').paints, row(split, APART).paints])).toEqual([
      'fill of Two',
      'fill of One',
    ]);
    const read = split.meetings
      .filter(({ kind, ink }) => kind === 'read' && ink === 'text #333333')
      .map(({ ground }) => ground);
    expect(read.sort()).toEqual(['ground #efeaff', APART]);
    const choices: MatchChoices = {
      strategy: 'blend',
      equal: [],
      locked: { [APART]: { kind: 'value', value: { kind: 'role', role: 'accent', shade: 0 } } },
    };
    const proposal = proposeMatch(site, SITE, split, choices);
    expect(becomes(proposal, APART)).toBe('#8f3f16');
    expect(becomes(proposal, 'ground #efeaff')).not.toBe('#8f3f16');
  });

  it('are merged into the first, their states following it', () => {
    const merged = regroup(site, found, { merged: [['text #333333', 'text #3a3a5c']] });
    expect(merged.rows.some(({ id }) => id === 'text #3a3a5c')).toBeFalse();
    expect(row(merged, 'text #333333').hexes).toEqual(['#333333', '#3a3a5c']);
    expect(row(merged, 'text #5b3fc4').atRest).toBe('text #333333');
    expect(merged.meetings.some(({ ink, ground }) => ink === 'text #3a3a5c' || ground === 'text #3a3a5c')).toBeFalse();
    const places = (of: FoundColors): number => of.rows.reduce((sum, own) => sum + own.places.length, 0);
    expect(places(merged)).toBe(places(found));
  });

  it('keep their names when another split is taken back, and see through what was merged', () => {
    const [first] = row(found, 'ground #efeaff').places;
    const [other] = row(found, 'text #333333').places;
    const both = [
      { row: 'ground #efeaff', places: [placeId(first)] },
      { row: 'text #333333', places: [placeId(other)] },
    ];
    const apartOf = (of: FoundColors): string[] =>
      of.rows.map(({ id }) => id).filter((id) => id.startsWith('text #333333 '));
    expect(apartOf(regroup(site, found, { apart: both })).length).toBe(1);
    expect(apartOf(regroup(site, found, { apart: both.slice(1) }))).toEqual(
      apartOf(regroup(site, found, { apart: both })),
    );
    const veil = { ink: 1, whole: 0.5, behind: 'ground #efeaff', outside: '' };
    const veiled = { ...found, meetings: found.meetings.map((meeting) => ({ ...meeting, veil })) };
    const merged = regroup(site, veiled, { merged: [['ground #ffffff', 'ground #efeaff']] });
    expect(merged.meetings.every((meeting) => meeting.veil?.behind === 'ground #ffffff')).toBeTrue();
  });

  it('stay as found where a choice names what is not there', () => {
    const whole = row(found, 'ground #efeaff').places.map(placeId);
    const same = regroup(site, found, {
      apart: [
        { row: 'ground #efeaff', places: whole },
        { row: 'text #000000', places: ['1:1::color:0:rest'] },
      ],
      merged: [['text #333333', 'text #000000']],
    });
    expect(same.rows.map(({ id }) => id)).toEqual(found.rows.map(({ id }) => id));
  });

  it('tell which choices hold no longer', () => {
    const locked: MatchChoices['locked'] = {
      'text #333333': { kind: 'value', value: { kind: 'role', role: 'link', shade: 0 } },
      'text #3a3a5c': { kind: 'value', value: { kind: 'role', role: 'ink', shade: 0 } },
      'text #000000': { kind: 'leave' },
    };
    const choices: MatchChoices = {
      strategy: 'blend',
      locked,
      equal: [['text #333333', 'text #123123']],
      apart: [{ row: 'text #777777', places: ['1:1::color:0:rest'] }],
      merged: [['text #333333', 'text #888888']],
      properties: ['--gone theme.css 1 :root', '--there theme.css 2 :root'],
    };
    const stale = staleChoices(new Set(found.rows.map(({ id }) => id)), choices, PALETTE, [
      '--there theme.css 2 :root',
    ]);
    expect(stale.map(({ row: id }) => id)).toEqual([
      'text #333333',
      'text #000000',
      'text #777777',
      'text #888888',
      'text #123123',
      '--gone theme.css 1 :root',
    ]);
    expect(withoutStale(choices, stale)).toEqual({
      strategy: 'blend',
      locked: { 'text #3a3a5c': locked['text #3a3a5c'] },
      equal: [],
      apart: [],
      merged: [],
      properties: ['--there theme.css 2 :root'],
    });
  });
});
