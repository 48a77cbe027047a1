import type { Route, Routes } from '@angular/router';

/** A view of the bar across the top; `order` is its place in the work. */
export interface ViewData {
  readonly view: { readonly label: string; readonly order: number };
}

/** The views, each in a folder of its own. A new view is one more row. */
export const VIEW_ROUTES: readonly (Route & { readonly path: string; readonly data: ViewData })[] = [
  {
    path: 'survey',
    data: { view: { label: 'Survey', order: 1 } },
    title: 'Survey · Upper Veneer',
    loadComponent: () => import('./survey/survey-page').then((module) => module.SurveyPage),
  },
  {
    path: 'palette',
    data: { view: { label: 'Palette', order: 2 } },
    title: 'Palette · Upper Veneer',
    loadComponent: () => import('./palette/palette-page').then((module) => module.PalettePage),
  },
  {
    path: 'match',
    data: { view: { label: 'Match', order: 3 } },
    title: 'Match · Upper Veneer',
    loadComponent: () => import('./match/match-page').then((module) => module.MatchPage),
  },
  {
    path: 'bench',
    data: { view: { label: 'Bench', order: 4 } },
    title: 'Bench · Upper Veneer',
    loadComponent: () => import('./bench/bench-page').then((module) => module.BenchPage),
  },
  {
    path: 'proof',
    data: { view: { label: 'Proof', order: 5 } },
    title: 'Proof · Upper Veneer',
    loadComponent: () => import('./proof/proof-page').then((module) => module.ProofPage),
  },
  {
    path: 'sheet',
    data: { view: { label: 'Sheet', order: 6 } },
    title: 'Sheet · Upper Veneer',
    loadComponent: () => import('./sheet/sheet-page').then((module) => module.SheetPage),
  },
  {
    path: 'trial',
    data: { view: { label: 'Trial', order: 7 } },
    title: 'Trial · Upper Veneer',
    loadComponent: () => import('./trial/trial-page').then((module) => module.TrialPage),
  },
];

export const routes: Routes = [
  ...VIEW_ROUTES,
  { path: '', pathMatch: 'full', redirectTo: 'bench' },
  { path: '**', redirectTo: 'bench' },
];
