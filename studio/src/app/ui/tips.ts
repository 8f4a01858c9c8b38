import { MAT_TOOLTIP_DEFAULT_OPTIONS, type MatTooltipDefaultOptions } from '@angular/material/tooltip';
import type { ValueProvider } from '@angular/core';

/** How tooltips come and go. They stand above what they tell of: the next thing, by reading order, is beside or below it. */
const TIPS: MatTooltipDefaultOptions = {
  position: 'above',
  showDelay: 500,
  hideDelay: 0,
  touchendHideDelay: 1500,
  disableTooltipInteractivity: true,
};

export const TIPS_ABOVE: ValueProvider = { provide: MAT_TOOLTIP_DEFAULT_OPTIONS, useValue: TIPS };

/** For a row that has other controls right above it, and none below. */
export const TIPS_BELOW: ValueProvider = {
  provide: MAT_TOOLTIP_DEFAULT_OPTIONS,
  useValue: { ...TIPS, position: 'below' } satisfies MatTooltipDefaultOptions,
};
