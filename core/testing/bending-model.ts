import { Document, WebIO, type GLTF } from '@gltf-transform/core';

/**
 * A GLB as another program writes it: a hose of 3 × 2 points on two joints that stand beside its mesh, with a target of its own
 * ("swell"); the upper joint turns and the target comes and goes.
 */
export async function bendingModel(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const accessor = (type: GLTF.AccessorType, array: Float32Array | Uint16Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const heights = [0, 0.5, 1, 1.5, 2];
  const places = heights.flatMap((y) => [-0.2, y, 0, 0.2, y, 0]);
  const shares = heights.flatMap((y) => [0, 1].flatMap(() => [1 - y / 2, y / 2, 0, 0]));
  const quads = heights.slice(1).flatMap((_, i) => {
    const a = i * 2;
    return [a, a + 1, a + 2, a + 2, a + 1, a + 3];
  });
  const target = document
    .createPrimitiveTarget('swell')
    .setAttribute(
      'POSITION',
      accessor('VEC3', Float32Array.from(places.map((n, i) => (i % 3 === 0 ? n : 0)))),
    );
  const primitive = document
    .createPrimitive()
    .setIndices(accessor('SCALAR', Uint16Array.from(quads)))
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(places)))
    .setAttribute(
      'JOINTS_0',
      accessor('VEC4', Uint16Array.from(shares.map((share, i) => (share > 0 ? i % 4 : 0)))),
    )
    .setAttribute('WEIGHTS_0', accessor('VEC4', Float32Array.from(shares)))
    .addTarget(target);
  const mesh = document
    .createMesh('hose')
    .addPrimitive(primitive)
    .setWeights([0])
    .setExtras({ targetNames: ['swell'] });
  const root = document.createNode('Hose foot').setTranslation([0, 0.3, 0]);
  const top = document.createNode('Hose top').setTranslation([0, 1, 0]);
  root.addChild(top);
  const binds = [
    [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
    [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, -1, 0, 1],
  ].flat();
  const skin = document
    .createSkin()
    .addJoint(root)
    .addJoint(top)
    .setInverseBindMatrices(accessor('MAT4', Float32Array.from(binds)));
  const bearer = document.createNode('Hose').setMesh(mesh).setSkin(skin).setTranslation([5, 0, 0]);
  scene.addChild(root).addChild(bearer);
  const half = (degrees: number) => [
    0,
    0,
    Math.sin((degrees * Math.PI) / 360),
    Math.cos((degrees * Math.PI) / 360),
  ];
  const animation = document.createAnimation('Sway');
  const move = (node: typeof top, path: GLTF.AnimationChannelTargetPath, values: Float32Array) => {
    const sampler = document
      .createAnimationSampler()
      .setInput(accessor('SCALAR', Float32Array.of(0, 0.5, 1)))
      .setOutput(accessor(path === 'rotation' ? 'VEC4' : 'SCALAR', values))
      .setInterpolation('LINEAR');
    const channel = document
      .createAnimationChannel()
      .setTargetNode(node)
      .setTargetPath(path)
      .setSampler(sampler);
    animation.addSampler(sampler).addChannel(channel);
  };
  move(top, 'rotation', Float32Array.from([...half(0), ...half(70), ...half(-20)]));
  move(bearer, 'weights', Float32Array.of(0, 1, 0.25));
  return new WebIO().writeBinary(document);
}
