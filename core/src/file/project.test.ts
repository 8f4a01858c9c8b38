import { readFileSync } from 'node:fs';
import type { Project } from '../project';
import { kindTables, projectSchema, readProject, writeProject } from './index';
import { testProject } from '../../testing/project';

const BASE = {
  format: 'kaizen',
  version: 1,
  id: 'p',
  name: 'P',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 10 },
  parts: [{ id: 'a', name: 'A', kind: 'group' }],
  clips: [{ id: 'main', name: 'Main', curves: [] as unknown[] }],
  activeClip: 'main',
};

function problemsOf(change: (document: typeof BASE & Record<string, unknown>) => void): string[] {
  const document = structuredClone(BASE) as typeof BASE & Record<string, unknown>;
  change(document);
  const read = readProject(JSON.stringify(document));
  return read.ok ? [] : read.problems.map(({ pointer, message }) => `${pointer}: ${message}`);
}

describe('reading a project', () => {
  it('fills in every default of the contract', () => {
    const project = testProject({}, [{ channel: 'wagon/translate.x', keys: [{ frame: 1, value: 2 }] }]);
    const curve = project.clips[0]!.curves[0]!;
    expect(curve.keys[0]).toEqual({
      frame: 1,
      value: 2,
      in: { mode: 'smooth', slope: 0, reach: 1 / 3 },
      out: { mode: 'smooth', slope: 0, reach: 1 / 3 },
      joined: true,
      leg: { kind: 'curve' },
    });
    expect(curve.after).toEqual({ mode: 'hold', count: null, pin: null });
    expect(project).toMatchObject({
      gravity: 9.81,
      floor: 0,
      arrangement: [],
      drivers: [],
      range: { loop: false },
    });
    expect(project.parts[0]).toMatchObject({ parent: null, pivot: [0, 0, 0], turnOrder: 'XYZ', visible: 1 });
  });

  it('fills in blocks by the kind of part', () => {
    const parts = [
      { id: 'c', name: 'C', kind: 'camera' },
      { id: 'l', name: 'L', kind: 'light', light: { intensity: 3 } },
      {
        id: 'm',
        name: 'M',
        kind: 'mesh',
        geometry: { shape: 'sphere', radius: 1 },
        material: { metallic: 1 },
      },
    ];
    const [camera, light, mesh] = testProject({ parts }).parts;
    expect(camera).toMatchObject({ camera: { focalLength: 35, sensorHeight: 24, near: 0.05, far: 1000 } });
    expect(light).toMatchObject({ light: { type: 'directional', color: [1, 1, 1], intensity: 3 } });
    expect(mesh).toMatchObject({ material: { baseColor: [0.8, 0.8, 0.8, 1], roughness: 0.8, metallic: 1 } });
  });

  it('writes back what it read: unknown fields kept, defaults left out', () => {
    const document = {
      ...BASE,
      later: { kept: true },
      parts: [{ id: 'a', name: 'A', kind: 'group', pivot: [0, 0, 0], colour: 'ochre' }],
      clips: [
        {
          id: 'main',
          name: 'Main',
          curves: [
            {
              channel: 'a/translate.x',
              keys: [{ frame: 0, value: 1, joined: true, tag: 7, out: { mode: 'smooth', reach: 0.5 } }],
            },
          ],
        },
      ],
    };
    const read = readProject(JSON.stringify(document));
    expect(read.ok).toBe(true);
    const written = JSON.parse(writeProject((read as { value: Project }).value)) as Record<string, unknown>;
    expect(written).toEqual({
      ...document,
      parts: [{ id: 'a', name: 'A', kind: 'group', colour: 'ochre' }],
      clips: [
        {
          id: 'main',
          name: 'Main',
          curves: [{ channel: 'a/translate.x', keys: [{ frame: 0, value: 1, tag: 7, out: { reach: 0.5 } }] }],
        },
      ],
    });
  });

  it.each([
    ['not JSON', () => readProject('{'), '', /not JSON/],
    ['another format', () => readProject('{"format":"x"}'), '/format', /must be "kaizen"/],
    ['a newer version', () => readProject('{"format":"kaizen","version":9}'), '/version', /newer Kaizen/],
    ['a list', () => readProject('[]'), '', /no project/],
  ])('says what is wrong with %s', (_, read, pointer, message) => {
    const result = read();
    expect(result.ok).toBe(false);
    if (result.ok) return;
    expect(result.problems[0]?.pointer).toBe(pointer);
    expect(result.problems[0]?.message).toMatch(message);
  });

  it('names the place and what would be right', () => {
    expect(problemsOf((d) => delete (d as Partial<typeof BASE>).rate)[0]).toMatch(
      /^\/rate: "rate" is missing/,
    );
    expect(problemsOf((d) => (d.name = 3 as never))[0]).toMatch(/^\/name: 3 stands here; it must be text/);
    expect(problemsOf((d) => (d.parts[0]!.kind = 'wheel'))[0]).toMatch(/^\/parts\/0\/kind: "wheel"/);
    expect(problemsOf((d) => (d.parts[0]!.id = '-a'))[0]).toMatch(/^\/parts\/0\/id: "-a" is no id/);
    expect(problemsOf((d) => d.parts.push({ ...d.parts[0]! }))[0]).toMatch(
      /^\/parts\/1\/id: the id "a" stands twice/,
    );
    expect(problemsOf((d) => (d.activeClip = 'x'))[0]).toMatch(/^\/activeClip: no clip/);
    expect(problemsOf((d) => (d['gravity'] = null))[0]).toMatch(
      /^\/gravity: null stands here; it must be a number/,
    );
  });

  const curve = (more: object) => (d: typeof BASE) =>
    void d.clips[0]!.curves.push({ channel: 'a/translate.x', ...more });
  const keys = (...frames: number[]) => frames.map((frame) => ({ frame, value: 0 }));

  it('refuses keys out of order or too near, pins elsewhere, and channels that do not exist', () => {
    expect(problemsOf(curve({ keys: keys(3, 2) }))[0]).toMatch(/^\/clips\/0\/curves\/0\/keys\/1\/frame/);
    expect(problemsOf(curve({ keys: keys(3, 3.0000005) }))[0]).toMatch(/0\.000001/);
    expect(problemsOf(curve({ keys: keys(3, 3.000001) }))).toEqual([]);
    expect(problemsOf(curve({ keys: keys(0, 5, 9), after: { mode: 'loop', pin: 9 } }))[0]).toMatch(
      /after\/pin: no inner key/,
    );
    expect(problemsOf(curve({ channel: 'a/translate.w' }))[0]).toMatch(/has no "translate.w"/);
    expect(problemsOf(curve({ channel: 'b/translate.x' }))[0]).toMatch(/no part has the id "b"/);
    expect(
      problemsOf(
        curve({
          keys: [
            { frame: 0, value: 0, leg: { kind: 'law', law: 'trapezoid', accelerate: 0.7, decelerate: 0.6 } },
          ],
        }),
      )[0],
    ).toMatch(/at most 1/);
    expect(problemsOf(curve({ treatments: [{ kind: 'clamp', min: 2, max: 1 }] }))[0]).toMatch(
      /min 2 is more than max 1/,
    );
  });

  it('refuses rings of parents, naming them', () => {
    const ring = problemsOf((d) => {
      d.parts = [
        { id: 'a', name: 'A', kind: 'group', parent: 'b' },
        { id: 'b', name: 'B', kind: 'group', parent: 'a' },
      ] as never;
    });
    expect(ring).toEqual([expect.stringMatching(/^\/parts\/0\/parent: .*a → b → a/)]);
  });

  it('publishes a schema that is itself JSON Schema with every shape of the contract', () => {
    const schema = JSON.parse(readFileSync('core/src/file/kaizen.schema.json', 'utf8')) as {
      $defs: Record<string, { oneOf?: unknown[] }>;
    };
    expect(schema.$defs['geometry']?.oneOf).toHaveLength(9);
    expect(schema.$defs['constraint']?.oneOf).toHaveLength(7);
    expect(schema).toEqual(JSON.parse(JSON.stringify(projectSchema())));
    const words = (text: string) => text.replace(/[\s|:-]+/g, ' ');
    expect(words(readFileSync('docs/kinds.md', 'utf8'))).toBe(words(kindTables()));
  });
});
