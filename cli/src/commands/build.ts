import { readFile } from 'node:fs/promises';
import { readDraftFile } from '@upper-veneer/contract';
import {
  colorOfCss,
  compileVeneer,
  ownCssProblem,
  plainValuesIn,
  readBackDifference,
  selectorProblem,
  valueProblem,
  wholenessProblem,
  type Override,
  type Palette,
} from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import type { Command } from '../command.js';
import { UsageProblem } from '../usage-problem.js';
import { write } from '../write.js';

/** Problems of a file that are named. */
const MOST_NAMED = 8;

export const build: Command = {
  name: 'build',
  takes: '<draft.json>',
  does: 'the stylesheet of a draft that the Sheet handed on as a file',
  async run(path, { out }) {
    const text = await readFile(path, 'utf8').catch(() => {
      throw new UsageProblem(`${path} is not there`);
    });
    const draft = readDraftFile(text);
    if (!draft.ok) throw new UsageProblem(problemsOf(path, draft.problems));
    const { overrides, options } = draft;
    const problems = [
      ...options.palette.swatches.flatMap(({ name, css }) =>
        colorOfCss(css) ? [] : [`swatch ${name}: "${css}" is no colour`],
      ),
      ...(options.ownCss ?? []).flatMap(({ css }, i) => {
        const problem = spoken(ownCssProblem(css));
        return problem === null ? [] : [`ownCss.${i} ${problem}`];
      }),
      ...overrides.flatMap((override) =>
        reasonsAgainst(override, options.palette).map((reason) => `override ${override.id}: ${reason}`),
      ),
    ];
    if (problems.length > 0) throw new UsageProblem(problemsOf(path, problems));
    const css = compileVeneer(overrides, options);
    const misread = readBackDifference(css, overrides, options);
    if (misread !== null || wholenessProblem(css) !== null)
      throw new UsageProblem(`${path}: a browser would not read the rule ${misread ?? ''} as it is meant`);
    await write(css, out);
    return 0;
  },
};

/** What of an override cannot be compiled. */
function reasonsAgainst({ selector, property, value }: Override, palette: Palette): string[] {
  const loose = plainValuesIn(value).flatMap((plain) => {
    if (plain.kind === 'swatch' && !palette.swatches.some(({ id }) => id === plain.swatchId))
      return [`there is no swatch ${plain.swatchId}`];
    if (plain.kind === 'role' && !palette.roles.some(({ role }) => role === plain.role))
      return [`no swatch fills the role ${plain.role}`];
    return [];
  });
  return [...loose, spoken(selectorProblem(selector)), spoken(valueProblem(property, value, palette))].filter(
    (reason) => reason !== null,
  );
}

function problemsOf(path: string, problems: readonly string[]): string {
  const more = problems.length - MOST_NAMED;
  return `${path}: ${problems.slice(0, MOST_NAMED).join('; ')}${more > 0 ? `; and ${more} more` : ''}`;
}
