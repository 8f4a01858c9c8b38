import type { Part } from '@kaizen/core';

/** The squash that a part has until its user says more. */
export const USUAL_SQUASH: NonNullable<Part['squash']> = { axis: 'y', anchor: [0, 0, 0], frame: 'part' };
