import type { Driver } from '../project';
import { testProject } from '../../testing/project';
import { line } from '../../testing/rigged';
import { extensionsThat, FORMATS, formatNamed, formatOfBytes } from './formats';

const project = testProject({}, [line('wagon/translate.x', [0, 0], [10, 1])]);
const bytesOf = (written: Uint8Array | string) =>
  typeof written === 'string' ? new TextEncoder().encode(written) : written;

describe('the formats', () => {
  it('say what can be read and what can be written', () => {
    expect(extensionsThat('read')).toEqual(['.kaizen.json', '.kaizen.zip', '.glb', '.gltf']);
    expect(extensionsThat('write')).toEqual(['.kaizen.json', '.kaizen.zip', '.glb', '.gltf', '.csv']);
    expect(formatNamed('Shot.GLB', 'read')?.id).toBe('glb');
    expect(formatNamed('csv', 'write')?.id).toBe('csv');
    expect(formatNamed('shot.csv', 'read')).toBeUndefined();
  });

  it.each(FORMATS.filter(({ read }) => read).map((format) => [format.id, format] as const))(
    '%s is known by its bytes and comes back as the project it was',
    async (_id, format) => {
      const written = await format.write!(project, {});
      if (!written.ok) throw new Error(JSON.stringify(written.problems));
      const bytes = bytesOf(written.value.content);
      expect(formatOfBytes(bytes)).toBe(format);
      const read = await format.read!({ name: 'shot', bytes });
      expect(read.ok && read.value).toEqual({ project, report: [] });
    },
  );

  it.each(FORMATS.filter(({ write }) => write).map((format) => [format.id, format] as const))(
    '%s says what it wrote, and what can’t be evaluated unless it is the whole project',
    async (_id, format) => {
      const good = await format.write!(project, {});
      expect(good.ok && good.value.summary).toMatch(/^\d+ (parts?|nodes, 1 animated|frames, 1 channels)$/);
      const driver = { id: 'd', target: 'wagon/rotate.y', kind: 'expression', inputs: {}, expression: '2 *' };
      const broken = { ...project, drivers: [{ ...driver, combine: 'replace', muted: false } as Driver] };
      const bad = await format.write!(broken, {});
      expect(bad.ok).toBe(format.isWhole);
    },
  );

  it('each says what it carries of a project', () => {
    for (const format of FORMATS) expect(format.carries(project).exactly.length).toBeGreaterThan(0);
  });
});
