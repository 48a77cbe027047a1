import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Inspection, ReachCount } from '@upper-veneer/core';
import { providePrimeNG } from 'primeng/config';
import { LineageBar } from '../grid/lineage-bar';
import { ReachSwitch } from '../editor/reach-switch';
import { VerdictBar } from '../verdict/verdict-bar';

async function create<T>(type: Type<T>, inputs: Readonly<Record<string, unknown>>) {
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), providePrimeNG({})] });
  const fixture = TestBed.createComponent(type);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return { fixture, host: fixture.nativeElement as HTMLElement };
}

const step = (element: number, label: string, some: object = {}) => ({
  element,
  pseudo: '',
  label,
  fill: null,
  hasImage: false,
  ...some,
});

describe('LineageBar', () => {
  const inspection = {
    element: 5,
    pseudo: '',
    lineage: [
      step(0, 'html'),
      step(3, 'body', { fill: '#ffffff' }),
      step(5, 'a.btn', { fill: '#b4582a', hasImage: true }),
    ],
    below: [step(5, '::before', { pseudo: 'before' }), step(6, 'b')],
  } as unknown as Spoken<Inspection>;

  it('shows the chain with the fill each paints itself, the target among them, and what is inside', async () => {
    const { host } = await create(LineageBar, { inspection });
    const buttons = [...host.querySelectorAll<HTMLButtonElement>('li > button')];
    expect(buttons.map((button) => button.textContent?.trim())).toEqual(['html', 'body', 'a.btn', '::before', 'b']);
    expect(buttons.map((button) => button.title)).toEqual([
      'html paints no fill of its own',
      'body paints #ffffff',
      'a.btn paints #b4582a and a gradient or picture over it',
      '::before paints no fill of its own',
      'b paints no fill of its own',
    ]);
    expect(
      buttons
        .filter((button) => button.getAttribute('aria-current') === 'true')
        .map((button) => button.textContent?.trim()),
    ).toEqual(['a.btn']);
    expect(buttons.filter((button) => button.tabIndex === 0).length).toBe(1);
  });

  it('chooses by click and walks by arrow keys', async () => {
    const { host, fixture } = await create(LineageBar, { inspection });
    const chosen: unknown[] = [];
    const walked: string[] = [];
    fixture.componentInstance.chosen.subscribe(({ element, pseudo }) => chosen.push([element, pseudo]));
    fixture.componentInstance.walked.subscribe((direction) => walked.push(direction));
    host.querySelectorAll<HTMLButtonElement>('li > button')[3].click();
    for (const key of ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'x'])
      host.dispatchEvent(new KeyboardEvent('keydown', { key }));
    expect(chosen).toEqual([[5, 'before']]);
    expect(walked).toEqual(['up', 'down', 'up', 'down', 'previous', 'next']);
  });

  it('says what to do when nothing is chosen', async () => {
    const { host } = await create(LineageBar, { inspection: null });
    expect(host.textContent).toContain('click to choose');
  });
});

describe('ReachSwitch', () => {
  const count = (reach: Spoken<ReachCount>['reach'], elements: number, pages: number): Spoken<ReachCount> => ({
    reach,
    elements,
    pages,
    places: [],
  });

  it('names each reach with what it takes in', async () => {
    const { host } = await create(ReachSwitch, {
      reach: 'alike',
      counts: [count('one', 1, 1), count('alike', 6, 3), count('everywhere', 41, 1)],
      kind: 'button',
    });
    expect(
      [...host.querySelectorAll('.option')].map((option) =>
        [...option.children].map((child) => child.textContent).join(': '),
      ),
    ).toEqual(['This one: 1 element', 'All alike: 6 on 3 pages', 'Everywhere: 41 buttons, 1 page']);
    expect(host.querySelector('.p-togglebutton-checked')?.textContent).toContain('All alike');
  });

  it('tells which reach is chosen', async () => {
    const { host, fixture } = await create(ReachSwitch, {
      reach: 'alike',
      counts: [count('one', 1, 1), count('alike', 6, 3), count('everywhere', 41, 1)],
    });
    const chosen: string[] = [];
    fixture.componentInstance.chosen.subscribe((reach) => chosen.push(reach));
    host.querySelectorAll<HTMLElement>('.p-togglebutton')[2].click();
    await fixture.whenStable();
    expect(chosen).toEqual(['everywhere']);
    expect(host.querySelectorAll('.option')[2].textContent).toContain('41 on 1 page');
  });
});

describe('VerdictBar', () => {
  const judgement = {
    override: { id: 'o' },
    findings: [
      { standing: 'holds', text: 'reaches 6 of 6', basis: 'six' },
      { standing: 'fails', text: 'spills to 2', basis: 'two' },
    ],
    gloss: 'When pressed.',
  };

  it('puts sign, word and what each figure was computed from', async () => {
    const { host } = await create(VerdictBar, { judgement });
    const items = [...host.querySelectorAll('li')];
    // The worst first.
    expect(items.map((item) => item.textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      '▲fails: spills to 2two',
      '●holds: reaches 6 of 6six',
    ]);
    expect(host.querySelector('.short')?.textContent?.replace(/\s+/g, ' ').trim()).toBe(
      '▲fails: spills to 2·●holds: reaches 6 of 6',
    );
    expect(host.querySelector('.gloss')?.textContent).toBe('When pressed.');
  });

  it('offers a repair in one press and outlines what a finding is about', async () => {
    const repair = { label: 'Hover: Willow', wishes: [] };
    const { host, fixture } = await create(VerdictBar, {
      judgement: {
        ...judgement,
        findings: [
          { standing: 'fails', text: 'spills to 1', basis: 'b', spots: [{ pageId: 1, element: 7 }] },
          { standing: 'look', text: 'hides hover', basis: 'b', repair },
        ],
      },
    });
    const taken: unknown[] = [];
    fixture.componentInstance.repaired.subscribe((wanted) => taken.push(wanted));
    fixture.componentInstance.shown.subscribe((spots) => taken.push(spots));
    host.querySelectorAll<HTMLButtonElement>('li button').forEach((button) => button.click());
    expect(taken).toEqual([[{ pageId: 1, element: 7 }], repair]);
  });

  it('opens into the list, counts what mends, and lets a state be that is meant', async () => {
    const { host, fixture } = await create(VerdictBar, {
      judgement: {
        ...judgement,
        findings: [
          {
            standing: 'look',
            text: 'hides hover',
            basis: 'b',
            state: 'hover',
            repair: { label: 'Hover: Willow', wishes: [] },
          },
          { standing: 'look', text: 'pressed still #fff', basis: 'b', state: 'active' },
        ],
      },
    });
    expect(host.querySelector('.short')?.textContent).toContain('2 to look at');
    const opener = host.querySelector<HTMLButtonElement>('.open');
    expect(opener?.textContent).toBe('2 findings, 1 mend');
    expect(host.querySelector('.all')?.classList).toContain('shut');
    opener?.click();
    await fixture.whenStable();
    expect(host.querySelector('.all')?.classList).not.toContain('shut');
    const settled: unknown[] = [];
    fixture.componentInstance.settled.subscribe((state) => settled.push(state));
    [...host.querySelectorAll<HTMLButtonElement>('li button')]
      .filter(({ textContent }) => textContent === 'That is meant')
      .forEach((button) => button.click());
    expect(settled).toEqual(['hover', 'active']);
  });

  it('says first why a wish was refused', async () => {
    const { host } = await create(VerdictBar, { judgement, refusal: 'Its style attribute says !important' });
    expect(host.querySelector('[role=alert]')?.textContent).toContain('Its style attribute');
    expect(host.firstElementChild?.getAttribute('role')).toBe('alert');
    expect(host.textContent).not.toContain('No override here yet');
  });
});
