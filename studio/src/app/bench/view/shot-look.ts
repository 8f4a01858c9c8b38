import { computed, Injectable, inject, signal } from '@angular/core';
import { PerspectiveCamera, Quaternion, Vector3 } from 'three';
import { shotCamera, type CameraPart, type FrameOutput, type Program } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Stage, type Evaluated } from '../stage/stage';
import { frameIn } from './shot-frame';
import { THE_SHOT, ViewControl } from '../stage/view-control';
import type { Lens } from './depth-pass';

/** Looking through a camera part: which one, its lens at the playhead, and where in the view the frame of the shot lies. */
@Injectable({ providedIn: 'root' })
export class ShotLook {
  private readonly stage = inject(Stage);
  private readonly studio = inject(Studio);
  private readonly control = inject(ViewControl);
  readonly camera = new PerspectiveCamera();
  /** The view's size in pixels. */
  readonly size = signal({ width: 1, height: 1 });

  /** The camera that shows the shot at the playhead. */
  private readonly ofShot = computed((): string | null => {
    const now = this.stage.now();
    return now?.program.structure.parts[shotCamera(now.program, now.out)]?.id ?? null;
  });

  /** The camera part that the view shows, if it shows one. */
  readonly part = computed((): CameraPart | null => {
    const asked = this.control.shot();
    const id = asked === THE_SHOT ? this.ofShot() : asked;
    const part = this.stage.shown()?.parts.find((candidate) => candidate.id === id);
    return part?.kind === 'camera' ? part : null;
  });

  /** The frame within the view, as shares of it. */
  readonly frame = computed(() => {
    const { width, height } = this.size();
    return frameIn(width / Math.max(1, height), this.studio.bench().shotFrame);
  });

  /** The lens of the camera looked through, at the playhead, in millimetres; null in the working view. */
  readonly focalLength = computed(() => {
    const part = this.part();
    const now = this.stage.now();
    return part && now ? focalLengthOf(now.program, now.out, part) : null;
  });

  /** What the lens keeps sharp at the playhead, where that is to be seen; else null. */
  readonly lens = computed((): Lens | null => {
    const part = this.part();
    const now = this.stage.now();
    if (!part || !now || !this.studio.bench().depthOfField) return null;
    return lensOf(now.program, now.out, part, this.frame().scale);
  });

  /** Puts the view's camera where the camera part stands, with so much around its frame that all of it is in sight. */
  take(now: Evaluated, part: CameraPart): void {
    const { width, height } = this.size();
    const index = now.program.structure.parts.findIndex(({ id }) => id === part.id);
    const aspect = width / Math.max(1, height);
    placeShot(this.camera, now.program, now.out, index, part, aspect, this.frame().scale);
  }
}

function lensOf(program: Program, out: FrameOutput, part: CameraPart, scale: number): Lens {
  const value = (name: 'focusDistance' | 'fStop', least: number) =>
    Math.max(least, out.channels[program.structure.slots.get(`${part.id}/camera.${name}`)!]!);
  return {
    focusDistance: value('focusDistance', 1e-3),
    fStop: value('fStop', 0.1),
    focalLength: focalLengthOf(program, out, part) / 1000,
    sensorHeight: part.camera.sensorHeight / 1000,
    scale,
  };
}

/** The camera that shows the shot at a frame, and what it sees; null where there is none. */
export function seenByShot(now: Evaluated, aspect: number): { id: string; camera: PerspectiveCamera } | null {
  const index = shotCamera(now.program, now.out);
  const part = now.program.structure.parts[index];
  if (part?.kind !== 'camera') return null;
  const camera = new PerspectiveCamera();
  placeShot(camera, now.program, now.out, index, part, aspect);
  return { id: part.id, camera };
}

function focalLengthOf(program: Program, out: FrameOutput, part: CameraPart): number {
  const slot = program.structure.slots.get(`${part.id}/camera.focalLength`);
  return Math.max(1, slot === undefined ? part.camera.focalLength : out.channels[slot]!);
}

/**
 * Sets a three.js camera to a camera part at a frame. `scale` is how much more than the shot's frame it sees, in height: 1 is the very
 * frame.
 */
function placeShot(
  camera: PerspectiveCamera,
  program: Program,
  out: FrameOutput,
  index: number,
  part: CameraPart,
  aspect: number,
  scale = 1,
): void {
  const half = part.camera.sensorHeight / 2 / focalLengthOf(program, out, part);
  camera.fov = (2 * Math.atan(half * scale) * 180) / Math.PI;
  camera.near = part.camera.near;
  camera.far = part.camera.far;
  camera.aspect = aspect;
  camera.updateProjectionMatrix();
  camera.matrixWorld.fromArray(out.world[index]!);
  const size = new Vector3();
  camera.matrixWorld.decompose(camera.position, new Quaternion(), size);
  camera.quaternion.setFromRotationMatrix(
    camera.matrixWorld.clone().scale(new Vector3(1 / size.x, 1 / size.y, 1 / size.z)),
  );
  camera.updateMatrixWorld();
}
