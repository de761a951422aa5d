import { inject } from '@angular/core';
import type { Routes, UrlMatcher } from '@angular/router';
import { Languages } from './shared/data/languages';
import { APP_ROUTES as T } from '@words/screens/app';

/** A job and its stages are one place: going from one to the other keeps the page, and what it holds, as it is. */
const jobOrStage: UrlMatcher = (segments) => {
  const [job, jobId, stage] = segments;
  if (job?.path !== 'job' || !jobId || segments.length > 3) return null;
  return { consumed: segments, posParams: { jobId, ...(stage && { stage }) } };
};

const pages: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'board' },
  {
    path: 'board',
    title: () => T.boardTitle,
    loadComponent: () => import('./board/board-page').then((m) => m.BoardPage),
  },
  {
    path: 'atlas',
    title: () => T.atlasTitle,
    loadComponent: () => import('./atlas/atlas-page').then((m) => m.AtlasPage),
  },
  {
    path: 'kit',
    title: () => T.kitTitle,
    loadComponent: () => import('./kit/kit-page').then((m) => m.KitPage),
  },
  {
    path: 'rules',
    title: () => T.rulesTitle,
    loadComponent: () => import('./rules/rules-page').then((m) => m.RulesPageView),
  },
  {
    path: 'bench',
    title: () => T.benchTitle,
    loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage),
  },
  {
    path: 'bench/:tool',
    title: () => T.benchTitle,
    loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage),
  },
  {
    path: 'practice',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/ladder-page').then((m) => m.LadderPage),
  },
  {
    path: 'practice/drills',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/drill-page').then((m) => m.DrillPage),
  },
  {
    path: 'practice/exam',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/exam-page').then((m) => m.ExamPage),
  },
  {
    path: 'practice/exam/:place',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/exam-case').then((m) => m.ExamCase),
  },
  {
    path: 'practice/write',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/write-page').then((m) => m.WritePage),
  },
  {
    path: 'practice/:code',
    title: () => T.practiceTitle,
    loadComponent: () => import('./practice/case-page').then((m) => m.CasePage),
  },
  {
    path: 'watch',
    title: () => T.watchTitle,
    loadComponent: () => import('./watch/watch-page').then((m) => m.WatchPageView),
  },
  {
    path: 'log',
    title: () => T.logTitle,
    loadComponent: () => import('./log/log-page').then((m) => m.LogPage),
  },
  {
    path: 'vehicles',
    title: () => T.vehiclesTitle,
    loadComponent: () => import('./vehicles/vehicles-page').then((m) => m.VehiclesPage),
  },
  {
    path: 'vehicle/:vehicleId',
    title: () => T.vehicleTitle,
    loadComponent: () => import('./vehicles/vehicle-page').then((m) => m.VehiclePage),
  },
  {
    path: 'files',
    title: () => T.filesTitle,
    loadComponent: () => import('./files/files-page').then((m) => m.FilesPage),
  },
  {
    path: 'set-up',
    title: () => T.setUpTitle,
    loadComponent: () => import('./set-up/set-up-page').then((m) => m.SetUpPage),
  },
  {
    path: 'batteries',
    title: () => T.batteriesTitle,
    loadComponent: () => import('./battery/batteries-page').then((m) => m.BatteriesPage),
  },
  {
    path: 'battery/:batteryId',
    title: () => T.batteryTitle,
    loadComponent: () => import('./battery/battery-page').then((m) => m.BatteryPage),
  },
  {
    path: 'follow-ups',
    title: () => T.followUpsTitle,
    loadComponent: () => import('./followups/follow-ups-page').then((m) => m.FollowUpsPage),
  },
  {
    path: 'desk',
    title: () => T.deskTitle,
    loadComponent: () => import('./board/desk-page').then((m) => m.DeskPage),
  },
  {
    path: 'shift',
    title: () => T.shiftTitle,
    loadComponent: () => import('./board/shift-page').then((m) => m.ShiftPage),
  },
  {
    path: 'figures',
    title: () => T.figuresTitle,
    loadComponent: () => import('./figures/figures-page').then((m) => m.FiguresPage),
  },
  {
    matcher: jobOrStage,
    title: () => T.jobTitle,
    loadComponent: () => import('./job/job-page').then((m) => m.JobPage),
  },
  {
    path: '**',
    title: () => T.notHereTitle,
    loadComponent: () => import('./shell/not-here').then((m) => m.NotHere),
  },
];

/** Every page but the first reads messages that the first page does without. */
const FIRST = ['', 'board'];
export const routes: Routes = pages.map((route) =>
  route.path !== undefined && FIRST.includes(route.path)
    ? route
    : { ...route, canActivate: [() => inject(Languages).whole()] },
);
