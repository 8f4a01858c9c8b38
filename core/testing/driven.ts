import type { Jet, Program, Project } from '../src';
import { programOf, slotOf, testProject } from './project';

/** A driver of wagon/translate.x, or of what `more` says. */
export function driver(kind: string, fields: object, more: object = {}): object {
  return { id: 'd', target: 'wagon/translate.x', kind, ...fields, ...more };
}

/** A project whose wagon has one driver or several, and curves. */
export function drivenProject(drivers: object | readonly object[], curves: readonly object[] = []): Project {
  return testProject({ drivers: Array.isArray(drivers) ? drivers : [drivers] }, curves);
}

/** The rates of a channel as a function of seconds. */
export function ratesOf(program: Program, channel: string): (seconds: number) => Jet {
  const slot = slotOf(program, channel);
  return (seconds) => program.channelRates(slot, seconds / program.context.secondsPerFrame);
}

/** A channel's value as a function of frames. */
export function valuesOf(project: Project, channel: string): (frame: number) => number {
  const program = programOf(project);
  const slot = slotOf(program, channel);
  return (frame) => program.channelValue(slot, frame);
}
