import { type Mesh, type Object3D, type SkinnedMesh, Vector3 } from 'three';
import type { MeshPart, Project } from '../../project';
import { compile } from '../../evaluate';
import { readDocument, writeProject } from '../../file';
import { blendMatrix, jointMatrices } from '../../rig';
import { removeParts } from '../../edit';
import { complaints, glbOf, playGlb } from '../../../testing/gltf';
import { bendingModel } from '../../../testing/bending-model';
import { extentOf } from '../../reading';
import { bytesOfUri } from '../asset-bytes';
import { bringModel, isBringProblem, modelMeshes } from './index';

async function brought(): Promise<{ bytes: Uint8Array; project: Project; report: readonly string[] }> {
  const bytes = await bendingModel();
  const result = await bringModel({ name: 'hose.glb', bytes });
  if (isBringProblem(result)) throw new Error(result.message);
  return { bytes, project: result.project, report: result.report };
}

function bodyIn(scene: Object3D): SkinnedMesh {
  let found: Mesh | null = null;
  scene.traverse((object) => {
    if ((object as Mesh).isMesh) found = object as Mesh;
  });
  return found as unknown as SkinnedMesh;
}

/** World places of all points of a played GLB's one mesh at a time in seconds. */
async function pointsOf(glb: Uint8Array): Promise<(seconds: number) => Vector3[]> {
  const played = await playGlb(glb);
  const mesh = bodyIn(played.scene);
  return (seconds) => {
    played.pointAt('Hose', [0, 0, 0], seconds);
    mesh.skeleton?.update();
    return Array.from({ length: mesh.geometry.getAttribute('position').count }, (_, i) =>
      mesh.getVertexPosition(i, new Vector3()).applyMatrix4(mesh.matrixWorld),
    );
  };
}

function farthest(here: readonly Vector3[], there: readonly Vector3[]): number {
  expect(here).toHaveLength(there.length);
  return Math.max(...here.map((point, i) => point.distanceTo(there[i]!)));
}

describe('a skinned mesh of a model', () => {
  it('names the parts that are its joints, and nothing of it is left out', async () => {
    const { project, report } = await brought();
    const hose = project.parts.find(({ name }) => name === 'Hose') as MeshPart;
    expect(hose.geometry).toMatchObject({ shape: 'asset', node: 'Hose', skin: ['Hose-foot', 'Hose-top'] });
    expect(report).toEqual(['1 animation read as clips']);
    expect(readDocument(JSON.parse(writeProject(project))).ok).toBe(true);
  });

  it('is handed over with its skin and its own target: three.js plays both files alike', async () => {
    const { bytes, project } = await brought();
    for (const bake of [false, true]) {
      const again = glbOf(project, { bake });
      expect(await complaints(again)).toEqual([
        expect.objectContaining({ code: 'NODE_SKINNED_MESH_LOCAL_TRANSFORMS' }),
      ]);
      const [before, after] = [await pointsOf(bytes), await pointsOf(again)];
      for (let i = 0; i <= 50; i++) expect(farthest(after(i / 50), before(i / 50))).toBeLessThan(1e-4);
    }
  });

  it('lies where its joints put it: the shares of their matrices, as three.js has them', async () => {
    const { bytes, project } = await brought();
    const played = await playGlb(bytes);
    const mesh = bodyIn(played.scene);
    const program = compile(project);
    if (!program.ok) throw new Error('not compiled');
    const index = (id: string) => project.parts.findIndex((part) => part.id === id);
    const worlds = ['Hose-foot', 'Hose-top'].map((id) => {
      const world = new Float64Array(16);
      program.value.worldMatrix(index(id), 12, world);
      return world;
    });
    const matrices = new Float64Array(32);
    jointMatrices(
      matrices,
      worlds,
      mesh.skeleton.boneInverses.map(({ elements }) => elements),
    );
    played.pointAt('Hose', [0, 0, 0], 0.5);
    mesh.skeleton.update();
    mesh.morphTargetInfluences = [0];
    const blend = new Float64Array(16);
    const { geometry } = mesh;
    const fours = (name: string) => {
      const attribute = geometry.getAttribute(name);
      return Array.from({ length: attribute.count * 4 }, (_, i) => attribute.getComponent(i >> 2, i % 4));
    };
    const shares = { joints: fours('skinIndex'), weights: fours('skinWeight') };
    for (let i = 0; i < geometry.getAttribute('position').count; i++) {
      blendMatrix(blend, matrices, shares, i);
      const still = new Vector3().fromBufferAttribute(geometry.getAttribute('position'), i);
      const here = [0, 1, 2].map(
        (row) =>
          blend[row]! * still.x + blend[4 + row]! * still.y + blend[8 + row]! * still.z + blend[12 + row]!,
      );
      const there = mesh.getVertexPosition(i, new Vector3()).applyMatrix4(mesh.matrixWorld);
      expect(there.distanceTo(new Vector3(...(here as [number, number, number])))).toBeLessThan(1e-5);
    }
  });

  it('stands as modelled once a joint is gone', async () => {
    const { project } = await brought();
    const without = removeParts(project, ['Hose-top']);
    const hose = without.parts.find(({ name }) => name === 'Hose') as MeshPart;
    expect(hose.geometry).not.toHaveProperty('skin');
    expect(await complaints(glbOf(without))).toEqual([]);
  });

  it('takes made shapes besides its own: each counts from the mesh as it was modelled', async () => {
    const { project } = await brought();
    const sag = {
      name: 'sag',
      value: 0.5,
      moves: [{ at: [0, 1, 0], radius: 1.2, by: [0, 0, 0.4], scale: 1 }],
    };
    const made = {
      ...project,
      parts: project.parts.map((part) =>
        part.name === 'Hose' ? { ...part, morphs: [...(part as MeshPart).morphs, sag] } : part,
      ),
    } as Project;
    const glb = glbOf(made);
    const mesh = bodyIn((await playGlb(glb)).scene);
    expect(Object.keys(mesh.morphTargetDictionary!)).toEqual(['swell', 'sag']);
    const moved = mesh.geometry.morphAttributes['position']![1]!;
    expect(moved.getZ(4)).toBeCloseTo(0.4 * (1 - 3 * (0.2 / 1.2) ** 2 + 2 * (0.2 / 1.2) ** 3), 6);
    expect(mesh.morphTargetInfluences![1]).toBe(0.5);
  });
});

describe('the mesh of a model', () => {
  it('is read for what needs its points: its lowest one, and what lies under it', async () => {
    const { project } = await brought();
    const [asset] = project.assets;
    const bytes = bytesOfUri(asset!.uri)!;
    const mesh = modelMeshes(bytes)('Hose')!;
    expect(mesh.positions).toHaveLength(30);
    expect(mesh.indices).toHaveLength(24);
    expect(Math.max(...mesh.indices)).toBe(9);
    const unskinned = removeParts(project, ['Hose-top']);
    const program = compile(unskinned);
    if (!program.ok) throw new Error('not compiled');
    const out = program.value.createOutput();
    program.value.run(0, out);
    expect(extentOf(unskinned, program.value, out, 'Hose')).toBe(null);
    const extent = extentOf(unskinned, program.value, out, 'Hose', () => mesh);
    expect([extent!.lowest[1], extent!.most[1], extent!.most[0]]).toEqual([0, 2, expect.closeTo(5.2, 6)]);
    expect(modelMeshes(bytes)('no such node')).toBe(null);
  });

  it('is measured as its joints and its own target have it: within 1e-6 m of where three.js plays it', async () => {
    const { bytes, project } = await brought();
    const played = await pointsOf(bytes);
    const mesh = modelMeshes(bytesOfUri(project.assets[0]!.uri)!)('Hose');
    const program = compile(project);
    if (!program.ok) throw new Error('not compiled');
    const out = program.value.createOutput();
    for (const frame of [0, 7, 12.5, 23]) {
      program.value.run(frame, out);
      const extent = extentOf(project, program.value, out, 'Hose', () => mesh)!;
      const points = played((frame * project.rate.per) / project.rate.frames);
      for (const axis of [0, 1, 2] as const) {
        const all = points.map((point) => point.getComponent(axis));
        expect(extent.least[axis]).toBeCloseTo(Math.min(...all), 6);
        expect(extent.most[axis]).toBeCloseTo(Math.max(...all), 6);
      }
    }
  });
});
