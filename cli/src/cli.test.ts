import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { main } from './main';

const LINEAR = { in: { mode: 'linear' }, out: { mode: 'linear' } };
const PROJECT = {
  format: 'kaizen',
  version: 1,
  id: 'rig',
  name: 'Rig',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 4 },
  parts: [{ id: 'drum', name: 'Drum', kind: 'mesh', geometry: { shape: 'cylinder', radius: 1, height: 1 } }],
  clips: [
    {
      id: 'main',
      name: 'Main',
      curves: [
        {
          channel: 'drum/rotate.y',
          keys: [
            { frame: 0, value: 0, ...LINEAR },
            { frame: 4, value: 90, ...LINEAR },
          ],
        },
      ],
    },
    { id: 'other', name: 'Other', curves: [{ channel: 'drum/rotate.y', keys: [{ frame: 0, value: 5 }] }] },
  ],
  activeClip: 'main',
};

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'kaizen-'));
});

function file(contents: unknown, name = 'rig.kaizen.json'): string {
  const path = join(folder, name);
  writeFileSync(path, typeof contents === 'string' ? contents : JSON.stringify(contents));
  return path;
}
function run(...argv: string[]): { code: number; out: string; err: string } {
  let out = '';
  let err = '';
  const code = main(argv, { out: (text) => (out += text), err: (text) => (err += text) });
  return { code, out, err };
}

describe('kaizen sample', () => {
  it('prints every animated channel over the range', () => {
    expect(run('sample', file(PROJECT))).toEqual({
      code: 0,
      err: '',
      out: 'frame,drum/rotate.y\n0,0\n1,22.5\n2,45\n3,67.5\n4,90\n',
    });
  });

  it('takes frames, channels, a clip and rates', () => {
    const path = file(PROJECT);
    expect(run('sample', path, '--frames', '-1:1:0.5', '--channels', 'drum/scale.x,drum/rotate.y').out).toBe(
      'frame,drum/scale.x,drum/rotate.y\n-1,1,0\n-0.5,1,0\n0,1,0\n0.5,1,11.25\n1,1,22.5\n',
    );
    expect(run('sample', path, '--clip', 'other', '--frames', '0:0').out).toBe('frame,drum/rotate.y\n0,5\n');
    expect(run('sample', path, '--rates', '--frames=1:1').out).toBe(
      'frame,drum/rotate.y,drum/rotate.y:velocity,drum/rotate.y:acceleration,drum/rotate.y:jerk\n1,22.5,540,0,0\n',
    );
    expect(JSON.parse(run('sample', path, '--world', '--frames', '4:4').out)).toEqual({
      frame: 4,
      parts: { drum: [0, 0, -1, 0, 0, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1] },
    });
  });

  it.each([
    [['--channels', 'drum/nope'], /no channel "drum\/nope"/],
    [['--clip', 'nope'], /no clip "nope"/],
    [['--frames', '5'], /A:B/],
    [['--frames', '5:1'], /before it starts/],
    [['--frames', '0:1:0'], /more than 0/],
    [['--loud'], /no option --loud/],
    [['--frames'], /needs a value/],
  ])('%j is wrong usage', (options, message) => {
    const { code, out, err } = run('sample', file(PROJECT), ...options);
    expect([code, out]).toEqual([2, '']);
    expect(err).toMatch(message);
  });

  it('refuses in one line what it cannot evaluate yet', () => {
    const aim = { id: 'c', kind: 'aim', part: 'drum', target: 'drum' };
    const { code, err } = run('sample', file({ ...PROJECT, constraints: [aim] }));
    expect(code).toBe(1);
    expect(err).toMatch(/rig\.kaizen\.json: \/constraints\/0: this Kaizen does not compute "aim"/);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});

describe('a bad file', () => {
  it.each([
    ['{', /not JSON/],
    [{ ...PROJECT, version: 2 }, /\/version: .*newer Kaizen/],
    [{ ...PROJECT, rate: null }, /\/rate: null stands here/],
  ])('gives one line naming file and place, and exit 1', (contents, message) => {
    const path = file(contents);
    const { code, out, err } = run('sample', path);
    expect([code, out]).toEqual([1, '']);
    expect(err).toMatch(message);
    expect(err).toContain(path);
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('that is missing is exit 1, an unknown extension exit 2', () => {
    expect(run('sample', join(folder, 'none.kaizen.json'))).toMatchObject({
      code: 1,
      err: expect.stringMatching(/no such file/) as string,
    });
    expect(run('sample', file('x', 'a.txt')).code).toBe(2);
    expect(run('convert', file(PROJECT), join(folder, 'out.dae'))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/not read or write/) as string,
    });
  });
});

describe('kaizen validate', () => {
  it('is silent about a good file and lists every problem of a bad one', () => {
    expect(run('validate', file(PROJECT))).toEqual({ code: 0, out: '', err: '' });
    const { code, out } = run('validate', file({ ...PROJECT, gravity: 'down', floor: 'low' }));
    expect(code).toBe(1);
    expect(out.trim().split('\n')).toEqual([
      expect.stringMatching(/^\/gravity: "down"/),
      expect.stringMatching(/^\/floor: "low"/),
    ]);
  });

  it('reads expressions and rings too, and accepts what is only not computed yet', () => {
    const driver = { id: 'd', target: 'drum/translate.x', kind: 'expression', expression: '1 +', inputs: {} };
    expect(run('validate', file({ ...PROJECT, drivers: [driver] })).out).toMatch(
      /^\/drivers\/0\/expression: /,
    );
    const follow = {
      id: 'f',
      target: 'drum/translate.x',
      kind: 'follow',
      input: 'drum/rotate.y',
      frequency: 1,
      damping: 0.5,
    };
    expect(run('validate', file({ ...PROJECT, drivers: [follow] })).code).toBe(0);
  });
});

describe('kaizen convert', () => {
  it('goes round through zip, glb and gltf without changing a letter', () => {
    const path = file(PROJECT);
    const to = (name: string) => join(folder, name);
    expect(run('convert', path, to('a.kaizen.json')).code).toBe(0);
    const plain = readFileSync(to('a.kaizen.json'), 'utf8');
    for (const step of ['b.kaizen.zip', 'c.glb', 'd.gltf']) {
      expect(run('convert', path, to(step))).toMatchObject({ code: 0, err: '' });
      expect(run('convert', to(step), to('back.kaizen.json')).code).toBe(0);
      expect(readFileSync(to('back.kaizen.json'), 'utf8')).toBe(plain);
    }
    expect(run('convert', path, to('e.csv')).code).toBe(0);
    expect(readFileSync(to('e.csv'), 'utf8')).toBe(run('sample', path).out);
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  });

  it('changes the rate and keeps the seconds, and says which expression it left', () => {
    const driver = {
      id: 'd',
      target: 'drum/translate.x',
      kind: 'expression',
      expression: 'frame',
      inputs: {},
    };
    const out = join(folder, 'out.kaizen.json');
    const { code, err } = run('convert', file({ ...PROJECT, drivers: [driver] }), out, '--fps', '48');
    expect(code).toBe(0);
    expect(err).toMatch(/driver "d" counts frames/);
    expect(JSON.parse(readFileSync(out, 'utf8'))).toMatchObject({
      rate: { frames: 48, per: 1 },
      range: { end: 8 },
    });
  });

  it('leaves nothing where it cannot write', () => {
    const target = join(folder, 'no-such-folder', 'out.glb');
    expect(run('convert', file(PROJECT), target)).toMatchObject({
      code: 1,
      err: expect.stringMatching(/could not be written/) as string,
    });
  });
});

describe('kaizen', () => {
  it('explains itself', () => {
    expect(run('--help')).toMatchObject({
      code: 0,
      out: expect.stringMatching(/npx kaizen sample/) as string,
    });
    expect(run().code).toBe(2);
    expect(run('dance')).toMatchObject({
      code: 2,
      err: expect.stringMatching(/no command "dance"/) as string,
    });
  });
});
