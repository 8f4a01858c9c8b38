import type { Part } from '../../../project';
import type { GltfJson } from '../document';

/** Numbers of a target that are channels: each with its part, property and how the file's number becomes the channel's. */
export interface NumberTarget {
  readonly size: number;
  readonly channels: readonly { readonly part: number; readonly property: string; readonly n: number }[];
  /** The file's number as the channel's, where that is another one. */
  readonly convert?: (value: number, part: Part) => number;
}

const RGBA = [...'rgba'];
const MATERIAL = /^\/materials\/(\d+)\/(pbrMetallicRoughness\/)?(\w+)$/;
const OF_MATERIALS: Readonly<Record<string, readonly string[]>> = {
  'pbrMetallicRoughness/baseColorFactor': RGBA.map((letter) => `material.baseColor.${letter}`),
  'pbrMetallicRoughness/roughnessFactor': ['material.roughness'],
  'pbrMetallicRoughness/metallicFactor': ['material.metallic'],
  emissiveFactor: RGBA.slice(0, 3).map((letter) => `material.emissive.${letter}`),
};
const LIGHT = /^\/extensions\/KHR_lights_punctual\/lights\/(\d+)\/(intensity|color)$/;
const LENS = /^\/cameras\/(\d+)\/perspective\/yfov$/;
const VISIBLE = /^\/nodes\/(\d+)\/extensions\/KHR_node_visibility\/visible$/;

/** What a pointer (KHR_animation_pointer) moves, as channels of all parts that have it; null where Kaizen has no such channel. */
export function pointerTarget(pointer: string, json: GltfJson, parts: readonly Part[]): NumberTarget | null {
  const nodes = json.nodes ?? [];
  const channelsOf = (has: (i: number) => boolean, kind: Part['kind'], properties: readonly string[]) =>
    nodes.flatMap((_, part) =>
      parts[part]?.kind === kind && has(part) ? properties.map((property, n) => ({ part, property, n })) : [],
    );
  const material = MATERIAL.exec(pointer);
  if (material) {
    const properties = OF_MATERIALS[(material[2] ?? '') + material[3]!];
    if (!properties) return null;
    const has = (i: number) =>
      json.meshes?.[nodes[i]!.mesh ?? -1]?.primitives[0]?.material === Number(material[1]);
    return { size: properties.length, channels: channelsOf(has, 'mesh', properties) };
  }
  const light = LIGHT.exec(pointer);
  if (light) {
    const properties =
      light[2] === 'intensity'
        ? ['light.intensity']
        : RGBA.slice(0, 3).map((letter) => `light.color.${letter}`);
    const has = (i: number) => lightOfNode(json, i) === Number(light[1]);
    return { size: properties.length, channels: channelsOf(has, 'light', properties) };
  }
  const lens = LENS.exec(pointer);
  if (lens)
    return {
      size: 1,
      channels: channelsOf((i) => nodes[i]!.camera === Number(lens[1]), 'camera', ['camera.focalLength']),
      convert: (yfov, part) =>
        part.kind === 'camera' ? part.camera.sensorHeight / (2 * Math.tan(yfov / 2)) : yfov,
    };
  const visible = VISIBLE.exec(pointer);
  const node = Number(visible?.[1]);
  return visible && parts[node] ? { size: 1, channels: [{ part: node, property: 'visible', n: 0 }] } : null;
}

function lightOfNode(json: GltfJson, i: number): number | undefined {
  return (json.nodes?.[i]?.extensions?.['KHR_lights_punctual'] as { light?: number } | undefined)?.light;
}
