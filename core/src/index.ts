export type { ElementNode, PageDocument, TreeRoot } from './dom/tree.js';
export { lineageOf, textOf } from './dom/tree.js';
export { DESKTOP, type MediaEnvironment } from './conditions/environment.js';
export type { Problem, ProblemCode } from './problem.js';
export { parsePage, withVeneer, VENEER_SHEET_NAME, type Page, type PageOptions, type VeneerPlace } from './resolve/page.js';
export { StyleView, type ViewOptions } from './resolve/style-view.js';
export type { ElementStyle } from './resolve/element-style.js';
export { explain, type Explanation, type Ply, type PlySource } from './resolve/explain.js';
export { pointerStates, type StateName } from './resolve/pointer-states.js';
