import { readProject, writeProject } from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { exportWork } from './export-work';

const project = chartProject();
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
/** A project that can't be computed: the formula of its door breaks off. */
const broken = () => {
  const formula = {
    id: 'formula',
    target: 'door/rotate.y',
    combine: 'replace',
    muted: false,
    kind: 'expression',
    inputs: { x: 'wagon/translate.x' },
    expression: '2 *',
  };
  const read = readProject(
    JSON.stringify({ ...(JSON.parse(writeProject(project)) as object), drivers: [formula] }),
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

const asked = (id: string, choice = {}, of = project, told: (share: number) => void = () => undefined) =>
  exportWork.write(id, { project: of, bytes: new Map() }, choice, told);

describe('what the export worker does', () => {
  it('writes CSV, a line a frame, and tells how far it is', async () => {
    const long = { ...project, range: { start: 0, end: 199, loop: false } };
    const shares: number[] = [];
    const written = await asked('csv', {}, long, (share) => void shares.push(share));
    if (!written.ok) throw new Error(written.reason);
    const lines = text(written.bytes).trim().split('\n');
    expect(lines[0]).toBe('frame,wagon/translate.x,hook/translate.y,wheel/rotate.z');
    expect(lines).toHaveLength(201);
    expect(lines[25]!.startsWith('24,2,1,')).toBe(true);
    expect(shares).toEqual([64, 128, 192].map((count) => count / 201));
    expect(written.summary).toMatch(/^200 frames, 3 channels, \d+ kB$/);
  });

  it('writes rates beside the values when asked', async () => {
    const written = await asked('csv', { rates: true });
    const [head] = written.ok ? text(written.bytes).split('\n') : [];
    expect(head).toContain('wagon/translate.x,wagon/translate.x:velocity,wagon/translate.x:acceleration');
  });

  it('writes glTF as one file or as text', async () => {
    const choice = { bake: false, tolerance: 1e-4 };
    const glb = await asked('glb', choice);
    expect(glb.ok && text(glb.bytes.slice(0, 4))).toBe('glTF');
    const gltf = await asked('gltf', choice);
    if (!gltf.ok) throw new Error(gltf.reason);
    const json = JSON.parse(text(gltf.bytes)) as { nodes: { name: string }[]; asset: { extras: object } };
    expect(json.nodes.map(({ name }) => name)).toContain('hook');
    expect(json.asset.extras).toHaveProperty('kaizen.project');
    expect(gltf.summary).toMatch(/^\d+ nodes, 3 animated, \d+ kB$/);
  });

  it('says in one sentence, with the place, what can’t be evaluated', async () => {
    for (const id of ['gltf', 'csv']) {
      const written = await asked(id, {}, broken());
      expect(!written.ok && written.reason).toMatch(/^at \/drivers\/0.*can't be read/);
    }
  });
});
