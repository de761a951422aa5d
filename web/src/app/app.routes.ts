import type { Routes, UrlMatcher } from '@angular/router';

/** A job and its stages are one place: going from one to the other keeps the page, and what it holds, as it is. */
const jobOrStage: UrlMatcher = (segments) => {
  const [job, jobId, stage] = segments;
  if (job?.path !== 'job' || !jobId || segments.length > 3) return null;
  return { consumed: segments, posParams: { jobId, ...(stage && { stage }) } };
};

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'board' },
  {
    path: 'board',
    title: 'Board, voltrek',
    loadComponent: () => import('./board/board-page').then((m) => m.BoardPage),
  },
  {
    path: 'atlas',
    title: 'Atlas, voltrek',
    loadComponent: () => import('./atlas/atlas-page').then((m) => m.AtlasPage),
  },
  {
    path: 'kit',
    title: 'Kit, voltrek',
    loadComponent: () => import('./kit/kit-page').then((m) => m.KitPage),
  },
  {
    path: 'rules',
    title: 'House rules, voltrek',
    loadComponent: () => import('./rules/rules-page').then((m) => m.RulesPageView),
  },
  {
    path: 'bench',
    title: 'Bench, voltrek',
    loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage),
  },
  {
    path: 'bench/:tool',
    title: 'Bench, voltrek',
    loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage),
  },
  {
    path: 'log',
    title: 'Log, voltrek',
    loadComponent: () => import('./log/log-page').then((m) => m.LogPage),
  },
  {
    path: 'vehicles',
    title: 'Vehicles, voltrek',
    loadComponent: () => import('./vehicles/vehicles-page').then((m) => m.VehiclesPage),
  },
  {
    path: 'vehicle/:vehicleId',
    title: 'Vehicle, voltrek',
    loadComponent: () => import('./vehicles/vehicle-page').then((m) => m.VehiclePage),
  },
  {
    path: 'files',
    title: 'Files, voltrek',
    loadComponent: () => import('./files/files-page').then((m) => m.FilesPage),
  },
  {
    path: 'set-up',
    title: 'Set-up, voltrek',
    loadComponent: () => import('./set-up/set-up-page').then((m) => m.SetUpPage),
  },
  {
    path: 'batteries',
    title: 'Batteries, voltrek',
    loadComponent: () => import('./battery/batteries-page').then((m) => m.BatteriesPage),
  },
  {
    path: 'battery/:batteryId',
    title: 'Battery record, voltrek',
    loadComponent: () => import('./battery/battery-page').then((m) => m.BatteryPage),
  },
  {
    path: 'follow-ups',
    title: 'Follow-ups, voltrek',
    loadComponent: () => import('./followups/follow-ups-page').then((m) => m.FollowUpsPage),
  },
  {
    matcher: jobOrStage,
    title: 'Job, voltrek',
    loadComponent: () => import('./job/job-page').then((m) => m.JobPage),
  },
  {
    path: '**',
    title: 'Not here, voltrek',
    loadComponent: () => import('./shell/not-here').then((m) => m.NotHere),
  },
];
