import { inject } from '@angular/core';
import { type CanActivateFn, Router, type Routes } from '@angular/router';
import { Studio } from './state/studio';
import { Keeper } from './storage/keeper';
import { Notices } from './ui/notices';

/** Opens the project that an address names, or leads back to Projects where it isn't kept here. */
const opensProject: CanActivateFn = async (route) => {
  const studio = inject(Studio);
  const keeper = inject(Keeper);
  const router = inject(Router);
  const notices = inject(Notices);
  const id = route.paramMap.get('project') ?? '';
  if (studio.project()?.id === id) return true;
  try {
    const opened = await keeper.open(id);
    if (opened === 'open') return true;
    if (opened === 'stay' || opened === 'overtaken') return false;
  } catch (error) {
    if (keeper.unusable() !== null) return false;
    notices.warn(
      `The project could not be read from this browser’s storage (${error instanceof Error ? error.message : String(error)}); reload the page to try again`,
    );
    return router.createUrlTree(['/projects']);
  }
  notices.warn('That project is not kept in this browser; open its file or choose one below');
  return router.createUrlTree(['/projects']);
};

export const routes: Routes = [
  {
    path: 'projects',
    title: 'Projects · Kaizen',
    loadComponent: () => import('./projects/projects.component').then((m) => m.ProjectsComponent),
  },
  {
    path: 'bench/:project',
    title: 'Bench · Kaizen',
    canActivate: [opensProject],
    loadComponent: () => import('./bench/bench-page.component').then((m) => m.BenchPageComponent),
  },
  {
    path: 'drivetrain/:project',
    title: 'Drivetrain · Kaizen',
    canActivate: [opensProject],
    loadComponent: () => import('./drivetrain/drivetrain.component').then((m) => m.DrivetrainComponent),
  },
  {
    path: 'timing/:project',
    title: 'Timing sheet · Kaizen',
    canActivate: [opensProject],
    loadComponent: () => import('./timing-sheet/timing-sheet.component').then((m) => m.TimingSheetComponent),
  },
  {
    path: 'hand-over/:project',
    title: 'Hand over · Kaizen',
    canActivate: [opensProject],
    loadComponent: () => import('./hand-over/hand-over.component').then((m) => m.HandOverComponent),
  },
  { path: '**', redirectTo: 'projects' },
];
