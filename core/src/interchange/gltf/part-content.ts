import type { CameraBlock, LightBlock, Material, MeshPart, Project } from '../../project';
import { shapeMesh } from '../../shape';
import type { MovedMesh } from '../../shot';
import type { GltfBuilder } from './builder';
import type { GltfMaterial } from './document';
import type { AddedIndices, AssetMeshes } from './asset-meshes';

/** The index of a mesh for a part: its shape with its material, or the asset's own mesh copied over. */
export function addMesh(
  builder: GltfBuilder,
  part: MeshPart,
  assets: AssetMeshes,
  moved: (MovedMesh & { readonly first: readonly number[] }) | null,
  skinned: boolean,
): AddedIndices | null {
  if (part.geometry.shape === 'asset')
    return assets.add(part.geometry.asset, part.geometry.node, { skinned, moved });
  const { positions, normals, indices } = moved?.mesh ?? shapeMesh(part.geometry);
  const material = builder.add('materials', gltfMaterial(part.name, part.material));
  if (part.material.emissive.some((value) => value > 1)) builder.use('KHR_materials_emissive_strength');
  const mesh = builder.add('meshes', {
    name: part.name,
    primitives: [
      {
        attributes: {
          POSITION: builder.floats(positions, 'VEC3', 3, { bounds: true, vertices: true }),
          NORMAL: builder.floats(normals, 'VEC3', 3, { vertices: true }),
        },
        indices: builder.indices(indices, positions.length / 3),
        material,
        ...(moved
          ? {
              targets: moved.targets.map(({ displacements }) => ({
                POSITION: builder.floats(displacements, 'VEC3', 3, { bounds: true, vertices: true }),
              })),
            }
          : {}),
      },
    ],
    ...(moved
      ? {
          weights: [...moved.first],
          extras: { targetNames: moved.targets.map(({ name }) => name) },
        }
      : {}),
  });
  return { mesh, material };
}

function gltfMaterial(name: string, material: Material): GltfMaterial {
  const strength = Math.max(1, ...material.emissive);
  return {
    name,
    pbrMetallicRoughness: {
      baseColorFactor: [...material.baseColor],
      metallicFactor: material.metallic,
      roughnessFactor: material.roughness,
    },
    ...(material.emissive.some((value) => value > 0)
      ? { emissiveFactor: material.emissive.map((value) => value / strength) }
      : {}),
    ...(material.baseColor[3] < 1 ? { alphaMode: 'BLEND' } : {}),
    ...(strength > 1
      ? { extensions: { KHR_materials_emissive_strength: { emissiveStrength: strength } } }
      : {}),
  };
}

/** yfov in radians from focal length and sensor height in millimetres. */
export function verticalFieldOfView(focalLength: number, sensorHeight: number): number {
  return 2 * Math.atan(sensorHeight / (2 * focalLength));
}

export function addCamera(builder: GltfBuilder, camera: CameraBlock): number {
  return builder.add('cameras', {
    type: 'perspective',
    perspective: {
      yfov: verticalFieldOfView(camera.focalLength, camera.sensorHeight),
      znear: camera.near,
      zfar: camera.far,
    },
    extras: { kaizen: { ...camera } },
  });
}

/** Lights of KHR_lights_punctual: candela, lux for directional. */
export function addLight(builder: GltfBuilder, lights: unknown[], light: LightBlock): number {
  builder.use('KHR_lights_punctual');
  const { type, color, intensity, range, cone } = light;
  lights.push({
    type,
    color: [...color],
    intensity,
    ...(range && type !== 'directional' ? { range } : {}),
    ...(type === 'spot'
      ? { spot: { outerConeAngle: Math.min(Math.PI / 2, (((cone ?? 60) / 2) * Math.PI) / 180) } }
      : {}),
  });
  return lights.length - 1;
}

export function assetSources(project: Project): ReadonlyMap<string, string> {
  return new Map(project.assets.map((asset) => [asset.id, asset.uri]));
}
