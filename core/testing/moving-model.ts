import { Document, WebIO, type GLTF, type Node } from '@gltf-transform/core';

type Interpolation = GLTF.AnimationSamplerInterpolation;
type Path = 'translation' | 'rotation' | 'scale';

/** One moved thing: times in seconds, and all numbers of its keys (of cubics: in-tangent, value, out-tangent a key). */
export interface Motion {
  readonly node: string;
  readonly path: Path;
  readonly interpolation: Interpolation;
  readonly times: readonly number[];
  readonly numbers: readonly number[];
}

/** A GLB as another program writes it: nodes in a row of parents and children, each moved as told, one animation a list. */
export async function movingModel(
  nodes: readonly {
    readonly name: string;
    readonly rotation?: readonly number[];
    readonly translation?: readonly number[];
  }[],
  animations: Readonly<Record<string, readonly Motion[]>>,
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const accessor = (type: GLTF.AccessorType, numbers: readonly number[]) =>
    document.createAccessor().setType(type).setArray(Float32Array.from(numbers)).setBuffer(buffer);
  const byName = new Map<string, Node>();
  let above: Node | null = null;
  for (const { name, rotation, translation } of nodes) {
    const node = document.createNode(name);
    if (rotation) node.setRotation(rotation as [number, number, number, number]);
    if (translation) node.setTranslation(translation as [number, number, number]);
    byName.set(name, node);
    (above ?? scene).addChild(node);
    above = node;
  }
  for (const [name, motions] of Object.entries(animations)) {
    const animation = document.createAnimation(name);
    for (const { node, path, interpolation, times, numbers } of motions) {
      const sampler = document
        .createAnimationSampler()
        .setInput(accessor('SCALAR', times))
        .setOutput(accessor(path === 'rotation' ? 'VEC4' : 'VEC3', numbers))
        .setInterpolation(interpolation);
      const channel = document
        .createAnimationChannel()
        .setTargetNode(byName.get(node)!)
        .setTargetPath(path)
        .setSampler(sampler);
      animation.addSampler(sampler).addChannel(channel);
    }
  }
  return new WebIO().writeBinary(document);
}
