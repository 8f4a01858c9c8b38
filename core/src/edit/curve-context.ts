import { secondsPerFrame, type Project } from '../project';
import type { CurveContext } from '../curve';

/** What curves need to know of their project. */
export function curveContext(project: Project): CurveContext {
  return { secondsPerFrame: secondsPerFrame(project.rate), gravity: project.gravity };
}
