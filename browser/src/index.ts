export {
  type AddressPolicy,
  checkAddress,
  innerLookup,
  isAllowed,
  isPrivate,
  narrowedTo,
  publicLookup,
} from './address-policy.js';
export { BOUNDS } from './bounds.js';
export { CaptureProblem } from './capture-problem.js';
export { findBrowser } from './find-browser.js';
export type { RecordedFile } from './recorder.js';
export { runPlan, type PlanResult, type ReportVisit } from './run-plan.js';
export type { TakenDocument, TakenPage } from './take-page.js';
export { isSandboxed } from './sandbox.js';
export type { DrawnSight, VisitHandle, VisitOptions } from './visit.js';
export { dropReady, prepareVisit, startVisitProcess } from './visit-process.js';
export { isUrl, relativeAddress, sitePathOf, withoutFragment } from './site-paths.js';
