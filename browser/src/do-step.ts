import { message, type Message } from '@upper-veneer/words';
import type { ElementHandle, Frame, Page } from 'playwright-core';
// Types alone: what starts a browser must not wait for the whole core to be read.
import type { VisitStep } from '@upper-veneer/core';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';
import { lookAtPage, type EyeQuestion } from './page-eye.js';
import { inPlainWords } from './plain-words.js';

/**
 * Does to a page what a visitor does.
 * @param note told what a visitor would not see.
 * @throws {CaptureProblem} `step-failed`.
 */
export async function doStep(page: Page, step: VisitStep, note: (note: Message) => void): Promise<void> {
  const timeout = BOUNDS.stepMs;
  try {
    if (step.act === 'scroll' && step.selector === '' && step.words === '') {
      await page.evaluate(() => window.scrollTo(0, document.documentElement.scrollHeight));
      return;
    }
    const element = await find(page, step, note);
    if (step.act === 'press') await element.click({ timeout });
    else if (step.act === 'hover') await element.hover({ timeout });
    else if (step.act === 'scroll') await element.scrollIntoViewIfNeeded({ timeout });
    else if (step.act === 'type') await element.fill(step.text, { timeout });
    else if (step.act === 'choose') await choose(element, step.text, timeout);
  } catch (error) {
    if (error instanceof CaptureProblem) throw error;
    throw new CaptureProblem('step-failed', inPlainWords(error));
  }
}

/** The first that shows; waited for, since scripts may be about to put it in. */
async function find(page: Page, step: VisitStep, note: (note: Message) => void): Promise<ElementHandle<HTMLElement>> {
  const until = Date.now() + BOUNDS.stepMs;
  for (;;) {
    const frame = await frameOf(page, step.frame);
    if (frame) {
      const question: EyeQuestion = { kind: 'find', selector: step.selector, words: step.words };
      const answer = await frame.evaluateHandle(lookAtPage, question).catch(() => null);
      const found = await answer?.evaluate(({ count, isShown }) => ({ count, isShown })).catch(() => null);
      const element = found?.isShown ? (await answer?.getProperty('element'))?.asElement() : null;
      if (element && found) {
        if (found.count > 1)
          note(message('visit-note.several', { count: found.count, what: step.words || step.selector }));
        return element as ElementHandle<HTMLElement>;
      }
    }
    if (Date.now() > until)
      throw new CaptureProblem('step-failed', message('capture.step-shows-nothing', { seconds: BOUNDS.stepMs / 1000 }));
    await new Promise((done) => setTimeout(done, 100));
  }
}

async function frameOf(page: Page, selector: string): Promise<Frame | null> {
  if (selector === '') return page.mainFrame();
  const question: EyeQuestion = { kind: 'find', selector, words: '' };
  const answer = await page.evaluateHandle(lookAtPage, question).catch(() => null);
  const element = (await answer?.getProperty('element'))?.asElement();
  return (await element?.contentFrame()) ?? null;
}

async function choose(element: ElementHandle<HTMLElement>, text: string, timeout: number): Promise<void> {
  const isList = await element.evaluate((own) => own instanceof HTMLSelectElement);
  if (!isList) await element.setChecked(text !== 'off', { timeout });
  else await element.selectOption({ label: text }, { timeout }).catch(() => element.selectOption(text, { timeout }));
}
