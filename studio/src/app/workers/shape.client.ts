import { proxy } from 'comlink';
import { activeClip, type KeyRef, type Project, type Span } from '@kaizen/core';
import { runInWorker, type WorkerRun } from './run-in-worker';
import type { Shaped } from './shape-api';

type Told = (share: number) => void;

/** Fewest keys within a tolerance, in a worker. */
export function runSimplify(
  project: Project,
  refs: readonly KeyRef[],
  tolerance: number,
  progress: Told,
): WorkerRun<Shaped> {
  const channels = refs.map(({ channel }) => channel);
  return runInWorker((api) => api.simplify(slim(project, channels), refs, tolerance, proxy(progress)));
}

/** Keys every so many frames, in a worker. */
export function runBake(
  project: Project,
  channels: readonly string[],
  every: number,
  span: Span,
  progress: Told,
): WorkerRun<Shaped> {
  return runInWorker((api) => api.bake(slim(project, channels), channels, every, span, proxy(progress)));
}

/** The project with only what the work needs: the curves named, and no assets. */
function slim(project: Project, channels: readonly string[]): Project {
  const clip = activeClip(project);
  const wanted = new Set(channels);
  return {
    ...project,
    assets: [],
    sounds: [],
    clips: clip ? [{ ...clip, curves: clip.curves.filter(({ channel }) => wanted.has(channel)) }] : [],
  };
}
