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
  readonly pointAt: (node: string, point: Point, seconds: number) => Point;
  /** The node at a place in the file's list, or the one that stands for a part; undefined where the scene shows none. */
  readonly nodeAt: (place: number) => Object3D | undefined;
  readonly nodeNamed: (node: string) => Object3D | undefined;
  readonly placeOf: (node: Object3D, point: Point, seconds: number) => Point;
}
type Point = readonly [number, number, number];

/** Points of a node by which its matrix is compared: its origin, and one along each axis. */
export const POINTS: readonly Point[] = [
  [0, 0, 0],
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** `unitTurns` has turns that a file gives in a few digits made as long as turns are, which three.js does not do. */
export async function playGlb(glb: Uint8Array, unitTurns = false): Promise<PlayedGltf> {
  const buffer = glb.buffer.slice(glb.byteOffset, glb.byteOffset + glb.byteLength) as ArrayBuffer;
  const gltf = await new GLTFLoader().parseAsync(buffer, '');
  const mixer = new AnimationMixer(gltf.scene);
  if (gltf.animations[0]) mixer.clipAction(gltf.animations[0]).play();
  let shown = NaN;
  const placeOf = (object: Object3D, point: Point, seconds: number): Point => {
    if (seconds !== shown) {
      mixer.setTime(seconds);
      if (unitTurns) gltf.scene.traverse(({ quaternion }) => quaternion.normalize());
      gltf.scene.updateMatrixWorld(true);
      shown = seconds;
    }
    const { x, y, z } = new Vector3(...point).applyMatrix4(object.matrixWorld);
    return [x, y, z];
  };
  const nodeNamed = (node: string) =>
    gltf.scene.getObjectByName(`${node}_body`) ?? gltf.scene.getObjectByName(node);
  const nodes = new Map<number, Object3D>();
  gltf.scene.traverse((object) => {
    const place = gltf.parser.associations.get(object)?.nodes;
    if (place !== undefined) nodes.set(place, object);
  });
  return {
    scene: gltf.scene,
    animations: gltf.animations,
    nodeAt: (place) => nodes.get(place),
    nodeNamed,
    placeOf,
    pointAt: (node, point, seconds) => {
      const object = nodeNamed(node);
      if (!object) throw new Error(`no node ${node}`);
      return placeOf(object, point, seconds);
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
