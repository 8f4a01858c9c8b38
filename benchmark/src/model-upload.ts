import { WebIO, type Primitive } from '@gltf-transform/core';
import {
  BufferAttribute,
  BufferGeometry,
  DirectionalLight,
  HemisphereLight,
  Mesh,
  MeshStandardMaterial,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
} from 'three';

/** Size of the picture, in pixels: that of the Bench's view in a window of 1280x800. */
const [WIDTH, HEIGHT] = [956, 300];

/**
 * What a model costs at least until it is seen, in milliseconds: read by gltf-transform, handed to three.js as it is, drawn once and
 * the pixels waited for.
 */
async function readAndDrawn(bytes: ArrayBuffer): Promise<number> {
  const began = performance.now();
  const document = await new WebIO().readBinary(new Uint8Array(bytes));
  const scene = new Scene();
  const material = new MeshStandardMaterial({ color: 0x8899aa });
  for (const node of document.getRoot().listNodes())
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const mesh = new Mesh(geometryOf(primitive), material);
      mesh.position.fromArray(node.getTranslation());
      scene.add(mesh);
    }
  scene.add(new HemisphereLight(), new DirectionalLight());
  const camera = new PerspectiveCamera(40, WIDTH / HEIGHT, 0.1, 500);
  camera.position.set(30, 30, 40);
  camera.lookAt(0, 0, 0);
  const renderer = new WebGLRenderer({ antialias: true });
  renderer.setSize(WIDTH, HEIGHT);
  renderer.render(scene, camera);
  const gl = renderer.getContext();
  gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
  return performance.now() - began;
}

function geometryOf(primitive: Primitive): BufferGeometry {
  const geometry = new BufferGeometry();
  const attribute = (name: string) => primitive.getAttribute(name)!.getArray() as Float32Array;
  geometry.setAttribute('position', new BufferAttribute(attribute('POSITION'), 3));
  geometry.setAttribute('normal', new BufferAttribute(attribute('NORMAL'), 3));
  geometry.setIndex(new BufferAttribute(primitive.getIndices()!.getArray() as Uint16Array, 1));
  return geometry;
}

Object.assign(globalThis, { readAndDrawn });
