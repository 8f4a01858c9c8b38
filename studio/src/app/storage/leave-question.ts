import type { Project } from '@kaizen/core';

/** What becomes of edits that can't be kept when their project is left. */
export type LeaveAnswer = 'stay' | 'let-go';

/** Asks what becomes of edits that can't be kept; the shell provides it. */
export abstract class LeaveQuestion {
  abstract ask(project: Project, reason: string | null): Promise<LeaveAnswer>;
}
