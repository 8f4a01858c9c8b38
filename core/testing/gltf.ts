import { validateBytes } from 'gltf-validator';
import { AnimationMixer, type AnimationClip, type Object3D, Vector3 } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { exportGltf, writeGlb, type GltfOptions } from '../src/interchange/gltf';
import type { Project } from '../src/project';

Object.assign(globalThis, {
  self: globalThis,
  ProgressEvent: class {},
});

/** A GLB as three.js reads and plays it: an independent reader. */
export interface PlayedGltf {
  readonly scene: Object3D;
  readonly animations: readonly AnimationClip[];
  /** World place of a point of the node that stands for a part (or its last helper), at a time in seconds. */
  readonly pointAt: (
    node: string,
    point: readonly [number, number, number],
    seconds: number,
  ) => [number, number, number];
}

export async function playGlb(glb: Uint8Array): Promise<PlayedGltf> {
  const buffer = glb.buffer.slice(glb.byteOffset, glb.byteOffset + glb.byteLength) as ArrayBuffer;
  const gltf = await new GLTFLoader().parseAsync(buffer, '');
  const mixer = new AnimationMixer(gltf.scene);
  if (gltf.animations[0]) mixer.clipAction(gltf.animations[0]).play();
  let shown = NaN;
  return {
    scene: gltf.scene,
    animations: gltf.animations,
    pointAt: (node, point, seconds) => {
      if (seconds !== shown) {
        mixer.setTime(seconds);
        gltf.scene.updateMatrixWorld(true);
        shown = seconds;
      }
      const object = gltf.scene.getObjectByName(`${node}_body`) ?? gltf.scene.getObjectByName(node);
      if (!object) throw new Error(`no node ${node}`);
      const { x, y, z } = new Vector3(...point).applyMatrix4(object.matrixWorld);
      return [x, y, z];
    },
  };
}

/** A project as a GLB. */
export function glbOf(project: Project, options: GltfOptions = {}): Uint8Array {
  const made = exportGltf(project, options);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return writeGlb(made.value);
}

/** What Khronos' validator says of a GLB: errors and warnings. */
export async function complaints(bytes: Uint8Array): Promise<unknown[]> {
  const report = await validateBytes(bytes, { maxIssues: 0 });
  return report.issues.messages.filter(({ severity }) => severity < 2);
}
