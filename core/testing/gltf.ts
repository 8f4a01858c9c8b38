import { AnimationMixer, type AnimationClip, type Object3D, Vector3 } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';

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
  return {
    scene: gltf.scene,
    animations: gltf.animations,
    pointAt: (node, point, seconds) => {
      mixer.setTime(seconds);
      gltf.scene.updateMatrixWorld(true);
      const object = gltf.scene.getObjectByName(`${node}_body`) ?? gltf.scene.getObjectByName(node);
      if (!object) throw new Error(`no node ${node}`);
      const { x, y, z } = new Vector3(...point).applyMatrix4(object.matrixWorld);
      return [x, y, z];
    },
  };
}
