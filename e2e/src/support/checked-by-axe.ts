import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults } from 'axe-core';
import type { Page } from 'playwright-core';

/** The independent checker, axe-core, as a script. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const WHOLE =
  "axe.run({ exclude: [['iframe']] }, { resultTypes: ['violations'], rules: Object.fromEntries(axe.getRules().filter(({ ruleId }) => ruleId !== 'color-contrast-enhanced').map(({ ruleId }) => [ruleId, { enabled: true }])) })";

const OF_COLORS =
  "axe.run({ exclude: [['iframe']] }, { resultTypes: ['violations'], runOnly: ['color-contrast', 'link-in-text-block'] })";

/**
 * A checker of one page: what axe-core finds by every rule it has, those it holds for experimental among them; the captured
 * pages in frames are the designer's and left out. The enhanced contrast of WCAG 2.2 1.4.6 (AAA, 7 : 1) is not asked.
 * With `colors`, only by the rules that hang on colours, for another light on the same screen.
 */
export async function axeOn(page: Page): Promise<(only?: 'colors') => Promise<string[]>> {
  // An own world: the page's policy lets no script in from outside.
  const session = await page.context().newCDPSession(page);
  const { frameTree } = await session.send('Page.getFrameTree');
  const { executionContextId: contextId } = await session.send('Page.createIsolatedWorld', {
    frameId: frameTree.frame.id,
    worldName: 'axe',
  });
  await session.send('Runtime.evaluate', { contextId, expression: AXE });
  return async (only) => {
    const { result, exceptionDetails } = await session.send('Runtime.evaluate', {
      contextId,
      awaitPromise: true,
      returnByValue: true,
      expression: only === 'colors' ? OF_COLORS : WHOLE,
    });
    if (exceptionDetails) throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text);
    return (result.value as AxeResults).violations.flatMap(({ id, nodes }) =>
      nodes.map(
        ({ target, any, all, none }) =>
          `${id}: ${target.join(' ')} (${[...any, ...all, ...none]
            .map(({ message }) => message)
            .join('; ')
            .slice(0, 160)})`,
      ),
    );
  };
}
