import { InjectionToken } from '@angular/core';

/** Which half of a split Chart something belongs to; the whole Chart is the upper one. */
export type Half = 'upper' | 'lower';
export const CHART_HALF = new InjectionToken<Half>('half of the Chart', {
  providedIn: 'root',
  factory: () => 'upper',
});
