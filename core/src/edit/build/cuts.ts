import { activeClip, channelName, isCamera, type CameraPart, type Project } from '../../project';
import { curveOf, type KeyRef } from '../curves';
import { deleteKeys, keyValues, type KeyedValue } from '../keys';

/** From a frame on the shot is seen by a camera. */
export interface Cut {
  readonly frame: number;
  readonly camera: string;
}

/**
 * Cuts to a camera at a frame: of all cameras it alone is visible from there to the next cut. Which camera shows is so a held channel like
 * any other, and its keys are moved, copied and removed as keys are. What showed before the first cut is keyed where the range starts.
 */
export function cutTo(project: Project, camera: string, frame: number): Project {
  const cameras = project.parts.filter(isCamera);
  if (!cameras.some(({ id }) => id === camera)) return project;
  const seenBy = (shown: string, at: number): KeyedValue[] =>
    cameras.map(({ id }) => ({ channel: visibleOf(id), frame: at, value: id === shown ? 1 : 0 }));
  const { start } = project.range;
  const before = cutsOf(project).length === 0 && frame > start ? firstVisible(cameras) : null;
  return keyValues(project, [...(before === null ? [] : seenBy(before, start)), ...seenBy(camera, frame)]);
}

/** The cuts of the clip that plays, in order: where its keys change which camera is the first that is visible. */
export function cutsOf(project: Project): readonly Cut[] {
  const cameras = project.parts.filter(isCamera);
  const frames = new Set(cameras.flatMap(({ id }) => keyFrames(project, id)));
  const cuts: Cut[] = [];
  for (const frame of [...frames].sort((a, b) => a - b)) {
    const shown = cameras.find(({ id, visible }) => heldValue(project, id, frame, visible) >= 0.5)?.id;
    const camera = shown ?? cameras[0]!.id;
    if (cuts.at(-1)?.camera !== camera) cuts.push({ frame, camera });
  }
  return cuts;
}

/** Takes a cut away: what showed before it goes on. */
export function removeCut(project: Project, frame: number): Project {
  const refs = project.parts.filter(isCamera).map(({ id }): KeyRef => ({ channel: visibleOf(id), frame }));
  return deleteKeys(project, refs);
}

function visibleOf(camera: string): string {
  return channelName(camera, 'visible');
}

function firstVisible(cameras: readonly CameraPart[]): string {
  return (cameras.find(({ visible }) => visible >= 0.5) ?? cameras[0]!).id;
}

function keyFrames(project: Project, camera: string): readonly number[] {
  return curveOf(project, visibleOf(camera))?.keys.map(({ frame }) => frame) ?? [];
}

function heldValue(project: Project, camera: string, frame: number, rest: number): number {
  const curve = activeClip(project) && curveOf(project, visibleOf(camera));
  if (!curve || curve.keys.length === 0 || curve.muted) return rest;
  return (curve.keys.findLast((key) => key.frame <= frame) ?? curve.keys[0]!).value;
}
