import { partOf, type Problem, type Project } from '@kaizen/core';

/** What a part is called. */
export function nameOf(project: Project, part: string): string {
  return partOf(project, part)?.name ?? part;
}

/** Why an edit was refused, as a sentence. */
export function said(problems: readonly Problem[]): string {
  const message = problems[0]?.message ?? 'that can’t be done here';
  return `${message.charAt(0).toUpperCase()}${message.slice(1)}${/[.!]$/.test(message) ? '' : '.'} Nothing was changed.`;
}
