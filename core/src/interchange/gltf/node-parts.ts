import { mat4 } from 'gl-matrix';
import type { Material, Part, Vec3 } from '../../project';
import { DEFAULT_PART, defaultBlock } from '../../file';
import { eulerXyz } from '../../shot';
import { assetNodeName } from './asset-node';
import type { GltfCamera, GltfJson, GltfMaterial, GltfNode } from './document';
import { tidyAngle } from './motions/tidy';
import { plural, slug } from './model-words';

/** Every node of a model as a part, in order; `asset` is the id of the model, `report` is told what could not be taken as it is. */
export function partsOfNodes(json: GltfJson, asset: string, report: string[]): Part[] {
  return new PartMaker(json, asset, report).parts();
}

class PartMaker {
  private readonly ids: string[] = [];
  private readonly parents: (number | null)[];

  constructor(
    private readonly json: GltfJson,
    private readonly asset: string,
    private readonly report: string[],
  ) {
    const nodes = json.nodes ?? [];
    const taken = new Set<string>();
    nodes.forEach((node, i) => {
      const base = slug(typeof node.name === 'string' && node.name !== '' ? node.name : `node-${i}`);
      let id = base;
      for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
      taken.add(id);
      this.ids.push(id);
    });
    this.parents = nodes.map(() => null);
    nodes.forEach((node, i) => node.children?.forEach((child) => (this.parents[child] = i)));
  }

  parts(): Part[] {
    let sheared = 0;
    const parts = (this.json.nodes ?? []).map((node, i): Part => {
      const { rest, shear } = restOf(node);
      if (shear) sheared++;
      const parent = this.parents[i];
      const base = {
        ...DEFAULT_PART,
        id: this.ids[i]!,
        name: typeof node.name === 'string' && node.name !== '' ? node.name : `Node ${i}`,
        parent: parent === null || parent === undefined ? null : this.ids[parent]!,
        rest,
      };
      return this.withContent(base, node, i);
    });
    if (sheared > 0)
      this.report.push(`${plural(sheared, 'node')} with a sheared matrix straightened: parts have no shear`);
    return parts;
  }

  private joints(skin: number): string[] {
    return (this.json.skins?.[skin]?.joints ?? []).map((node) => this.ids[node]!);
  }

  private withContent(base: object, node: GltfNode, index: number): Part {
    const light = lightOf(this.json, node);
    const camera = node.camera === undefined ? undefined : this.json.cameras?.[node.camera];
    if (node.mesh !== undefined) {
      const mesh = this.json.meshes?.[node.mesh];
      const source = this.json.materials?.[mesh?.primitives[0]?.material ?? -1];
      const names = mesh?.extras?.targetNames ?? [];
      const morphs = (mesh?.primitives[0]?.targets ?? []).map((_, i) => ({
        name: names[i] ?? `target ${i}`,
        value: node.weights?.[i] ?? mesh?.weights?.[i] ?? 0,
      }));
      return {
        ...base,
        kind: 'mesh',
        geometry: {
          shape: 'asset',
          asset: this.asset,
          node: assetNodeName(this.json, index),
          ...(node.skin === undefined ? {} : { skin: this.joints(node.skin) }),
        },
        material: materialOf(source),
        morphs,
      } as unknown as Part;
    }
    if (camera) return { ...base, kind: 'camera', camera: cameraOf(camera, this.report) } as unknown as Part;
    if (light) return { ...base, kind: 'light', light } as unknown as Part;
    return { ...base, kind: 'group' } as unknown as Part;
  }
}

function restOf(node: GltfNode): { rest: Part['rest']; shear: boolean } {
  if (!node.matrix) {
    return {
      rest: {
        translate: (node.translation ?? [0, 0, 0]) as unknown as Vec3,
        rotate: tidy(eulerXyz(unit(node.rotation ?? [0, 0, 0, 1]))),
        scale: (node.scale ?? [1, 1, 1]) as unknown as Vec3,
      },
      shear: false,
    };
  }
  const m = Float64Array.from(node.matrix) as unknown as mat4;
  const length = (column: number) => Math.hypot(m[column * 4]!, m[column * 4 + 1]!, m[column * 4 + 2]!);
  const scale: [number, number, number] = [length(0), length(1), length(2)];
  if (mat4.determinant(m) < 0) scale[0] = -scale[0];
  const axes = [0, 1, 2].map((i) => [0, 1, 2].map((k) => m[i * 4 + k]! / (scale[i] || 1)));
  const rotation = quaternionOfAxes(axes);
  const dot = (a: number[], b: number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const shear = [
    [0, 1],
    [0, 2],
    [1, 2],
  ].some(([a, b]) => Math.abs(dot(axes[a!]!, axes[b!]!)) > 1e-4);
  return {
    rest: { translate: [m[12], m[13], m[14]], rotate: tidy(eulerXyz(rotation)), scale },
    shear,
  };
}

function unit(q: readonly number[]): number[] {
  const length = Math.hypot(...q) || 1;
  return q.map((v) => v / length);
}

/** The unit quaternion of three orthonormal columns (Shepperd's method). */
function quaternionOfAxes([x, y, z]: readonly number[][]): number[] {
  const [m00, m10, m20] = x as [number, number, number];
  const [m01, m11, m21] = y as [number, number, number];
  const [m02, m12, m22] = z as [number, number, number];
  const trace = m00 + m11 + m22;
  if (trace > 0) {
    const s = 2 * Math.sqrt(trace + 1);
    return [(m21 - m12) / s, (m02 - m20) / s, (m10 - m01) / s, s / 4];
  }
  if (m00 > m11 && m00 > m22) {
    const s = 2 * Math.sqrt(1 + m00 - m11 - m22);
    return [s / 4, (m01 + m10) / s, (m02 + m20) / s, (m21 - m12) / s];
  }
  if (m11 > m22) {
    const s = 2 * Math.sqrt(1 + m11 - m00 - m22);
    return [(m01 + m10) / s, s / 4, (m12 + m21) / s, (m02 - m20) / s];
  }
  const s = 2 * Math.sqrt(1 + m22 - m00 - m11);
  return [(m02 + m20) / s, (m12 + m21) / s, s / 4, (m10 - m01) / s];
}

function tidy(angles: readonly [number, number, number]): Vec3 {
  return [tidyAngle(angles[0]), tidyAngle(angles[1]), tidyAngle(angles[2])];
}

function materialOf(source: GltfMaterial | undefined): Material {
  const pbr = source?.pbrMetallicRoughness;
  const base = pbr?.baseColorFactor ?? (source ? [1, 1, 1, 1] : undefined);
  const plain = defaultBlock('material') as unknown as Material;
  return {
    ...plain,
    ...(base
      ? { baseColor: base.map((v) => Math.min(1, Math.max(0, v))) as unknown as Material['baseColor'] }
      : {}),
    ...(source ? { roughness: pbr?.roughnessFactor ?? 1, metallic: pbr?.metallicFactor ?? 1 } : {}),
    ...(source?.emissiveFactor ? { emissive: source.emissiveFactor as unknown as Material['emissive'] } : {}),
  };
}

function cameraOf(camera: GltfCamera, report: string[]): object {
  const block = defaultBlock('camera') as { sensorHeight: number };
  const perspective = camera.perspective;
  if (camera.type !== 'perspective' || !perspective) {
    report.push('an orthographic camera became a perspective one: cameras here have a lens');
    return block;
  }
  const focalLength = block.sensorHeight / (2 * Math.tan(perspective.yfov / 2));
  return {
    ...block,
    focalLength,
    near: perspective.znear,
    ...(perspective.zfar === undefined ? {} : { far: perspective.zfar }),
  };
}

function lightOf(json: GltfJson, node: GltfNode): object | null {
  const reference = node.extensions?.['KHR_lights_punctual'] as { light?: number } | undefined;
  const lights = (
    json.extensions?.['KHR_lights_punctual'] as { lights?: Record<string, unknown>[] } | undefined
  )?.lights;
  const light = reference?.light === undefined ? undefined : lights?.[reference.light];
  if (!light) return null;
  const cone = (light['spot'] as { outerConeAngle?: number } | undefined)?.outerConeAngle;
  return {
    ...defaultBlock('light'),
    type: light['type'],
    ...(light['color'] ? { color: light['color'] } : {}),
    ...(typeof light['intensity'] === 'number' ? { intensity: light['intensity'] } : {}),
    ...(typeof light['range'] === 'number' ? { range: light['range'] } : {}),
    ...(cone === undefined ? {} : { cone: (2 * cone * 180) / Math.PI }),
  };
}
