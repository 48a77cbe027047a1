import { wordsOf } from '@upper-veneer/words';
import type { Route, Routes } from '@angular/router';

/** A view of the bar across the top; `order` is its place in the work. */
export interface ViewData {
  readonly view: { readonly label: string; readonly order: number };
}

/** What the window is called that shows a view. */
const titled = (view: string): string => wordsOf('shell.title', { view });

/** The views, each in a folder of its own. A new view is one more row. */
export const VIEW_ROUTES: readonly (Route & { readonly path: string; readonly data: ViewData })[] = [
  {
    path: 'survey',
    data: { view: { label: wordsOf('shell.survey'), order: 1 } },
    title: titled(wordsOf('shell.survey')),
    loadComponent: () => import('./survey/survey-page').then((module) => module.SurveyPage),
  },
  {
    path: 'palette',
    data: { view: { label: wordsOf('shell.palette'), order: 2 } },
    title: titled(wordsOf('shell.palette')),
    loadComponent: () => import('./palette/palette-page').then((module) => module.PalettePage),
  },
  {
    path: 'match',
    data: { view: { label: wordsOf('shell.match'), order: 3 } },
    title: titled(wordsOf('shell.match')),
    loadComponent: () => import('./match/match-page').then((module) => module.MatchPage),
  },
  {
    path: 'bench',
    data: { view: { label: wordsOf('shell.bench'), order: 4 } },
    title: titled(wordsOf('shell.bench')),
    loadComponent: () => import('./bench/bench-page').then((module) => module.BenchPage),
  },
  {
    path: 'proof',
    data: { view: { label: wordsOf('shell.proof'), order: 5 } },
    title: titled(wordsOf('shell.proof')),
    loadComponent: () => import('./proof/proof-page').then((module) => module.ProofPage),
  },
  {
    path: 'sheet',
    data: { view: { label: wordsOf('shell.sheet'), order: 6 } },
    title: titled(wordsOf('shell.sheet')),
    loadComponent: () => import('./sheet/sheet-page').then((module) => module.SheetPage),
  },
  {
    path: 'trial',
    data: { view: { label: wordsOf('shell.trial'), order: 7 } },
    title: titled(wordsOf('shell.trial')),
    loadComponent: () => import('./trial/trial-page').then((module) => module.TrialPage),
  },
];

export const routes: Routes = [
  ...VIEW_ROUTES,
  { path: '', pathMatch: 'full', redirectTo: 'bench' },
  { path: '**', redirectTo: 'bench' },
];
