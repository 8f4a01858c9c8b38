import { lstatSync, mkdtempSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
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

const here = fileURLToPath(new URL('.', import.meta.url));
let folder = '';
/** What comes by standard input. */
let typed = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'kaizen-'));
});

function file(contents: unknown, name = 'rig.kaizen.json'): string {
  const path = join(folder, name);
  writeFileSync(path, typeof contents === 'string' ? contents : JSON.stringify(contents));
  return path;
}
async function run(...argv: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const code = await main(argv, {
    out: (text) => (out += text),
    err: (text) => (err += text),
    outBytes: (bytes) => (out += Buffer.from(bytes).toString('utf8')),
    input: () => Buffer.from(typed),
  });
  return { code, out, err };
}

describe('kaizen sample', () => {
  it('prints every animated channel over the range', async () => {
    expect(await run('sample', file(PROJECT))).toEqual({
      code: 0,
      err: '',
      out: 'frame,drum/rotate.y\n0,0\n1,22.5\n2,45\n3,67.5\n4,90\n',
    });
  });

  it('takes frames, channels, a clip and rates', async () => {
    const path = file(PROJECT);
    expect(
      (await run('sample', path, '--frames', '-1:1:0.5', '--channels', 'drum/scale.x,drum/rotate.y')).out,
    ).toBe('frame,drum/scale.x,drum/rotate.y\n-1,1,0\n-0.5,1,0\n0,1,0\n0.5,1,11.25\n1,1,22.5\n');
    expect((await run('sample', path, '--clip', 'other', '--frames', '0:0')).out).toBe(
      'frame,drum/rotate.y\n0,5\n',
    );
    expect((await run('sample', path, '--rates', '--frames=1:1')).out).toBe(
      'frame,drum/rotate.y,drum/rotate.y:velocity,drum/rotate.y:acceleration,drum/rotate.y:jerk\n1,22.5,540,0,0\n',
    );
    expect(JSON.parse((await run('sample', path, '--world', '--frames', '4:4')).out)).toEqual({
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
  ])('%j is wrong usage', async (options, message) => {
    const { code, out, err } = await run('sample', file(PROJECT), ...options);
    expect([code, out]).toEqual([2, '']);
    expect(err).toMatch(message);
  });

  it('refuses a ring of parts in one line', async () => {
    const aim = { id: 'c', kind: 'aim', part: 'drum', target: 'drum' };
    const { code, err } = await run('sample', file({ ...PROJECT, constraints: [aim] }));
    expect(code).toBe(1);
    expect(err).toMatch(/rig\.kaizen\.json: \/constraints\/0: parts and channels run in a ring: drum → drum/);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});

describe('a bad file', () => {
  it.each([
    ['{', /not JSON/],
    [{ ...PROJECT, version: 2 }, /\/version: .*newer Kaizen/],
    [{ ...PROJECT, rate: null }, /\/rate: null stands here/],
  ])('gives one line naming file and place, and exit 1', async (contents, message) => {
    const path = file(contents);
    const { code, out, err } = await run('sample', path);
    expect([code, out]).toEqual([1, '']);
    expect(err).toMatch(message);
    expect(err).toContain(path);
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('that is missing is exit 1, an unknown extension exit 2', async () => {
    expect(await run('sample', join(folder, 'none.kaizen.json'))).toMatchObject({
      code: 1,
      err: expect.stringMatching(/no such file/) as string,
    });
    expect((await run('sample', file('x', 'a.txt'))).code).toBe(2);
    expect(await run('convert', file(PROJECT), join(folder, 'out.dae'))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/not read or write/) as string,
    });
  });
});

describe('kaizen validate', () => {
  it('is silent about a good file and lists every problem of a bad one', async () => {
    expect(await run('validate', file(PROJECT))).toEqual({ code: 0, out: '', err: '' });
    const { code, out } = await run('validate', file({ ...PROJECT, gravity: 'down', floor: 'low' }));
    expect(code).toBe(1);
    expect(out.trim().split('\n')).toEqual([
      expect.stringMatching(/^\/gravity: "down"/),
      expect.stringMatching(/^\/floor: "low"/),
    ]);
  });

  it('reads expressions and mechanisms too', async () => {
    const driver = { id: 'd', target: 'drum/translate.x', kind: 'expression', expression: '1 +', inputs: {} };
    expect((await run('validate', file({ ...PROJECT, drivers: [driver] }))).out).toMatch(
      /^\/drivers\/0\/expression: /,
    );
    const gear = {
      id: 'g',
      target: 'drum/translate.x',
      kind: 'linkage',
      linkage: 'gear',
      inputs: { angle: 'drum/rotate.y' },
      output: 'speed',
      params: { teethIn: 12, teethOut: 24 },
    };
    expect((await run('validate', file({ ...PROJECT, drivers: [gear] }))).out).toMatch(
      /^\/drivers\/0\/output: a gear has no output "speed"; it must be angle/,
    );
  });
});

describe('kaizen convert', () => {
  it('goes round through zip, glb and gltf without changing a letter', async () => {
    const path = file(PROJECT);
    const to = (name: string) => join(folder, name);
    expect((await run('convert', path, to('a.kaizen.json'))).code).toBe(0);
    const plain = readFileSync(to('a.kaizen.json'), 'utf8');
    for (const step of ['b.kaizen.zip', 'c.glb', 'd.gltf']) {
      expect(await run('convert', path, to(step))).toMatchObject({ code: 0, err: '' });
      expect((await run('convert', to(step), to('back.kaizen.json'))).code).toBe(0);
      expect(readFileSync(to('back.kaizen.json'), 'utf8')).toBe(plain);
    }
    expect((await run('convert', path, to('e.csv'))).code).toBe(0);
    expect(readFileSync(to('e.csv'), 'utf8')).toBe((await run('sample', path)).out);
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  });

  it('changes the rate and keeps the seconds, and says which expression it left', async () => {
    const driver = {
      id: 'd',
      target: 'drum/translate.x',
      kind: 'expression',
      expression: 'frame',
      inputs: {},
    };
    const out = join(folder, 'out.kaizen.json');
    const { code, err } = await run('convert', file({ ...PROJECT, drivers: [driver] }), out, '--fps', '48');
    expect(code).toBe(0);
    expect(err).toMatch(/driver "d" counts frames/);
    expect(JSON.parse(readFileSync(out, 'utf8'))).toMatchObject({
      rate: { frames: 48, per: 1 },
      range: { end: 8 },
    });
  });

  it('leaves nothing where it cannot write', async () => {
    const target = join(folder, 'no-such-folder', 'out.glb');
    expect(await run('convert', file(PROJECT), target)).toMatchObject({
      code: 1,
      err: expect.stringMatching(/could not be written/) as string,
    });
  });
});

describe('kaizen', () => {
  it('explains itself', async () => {
    expect(await run('--help')).toMatchObject({
      code: 0,
      out: expect.stringMatching(/npx kaizen sample/) as string,
    });
    expect((await run()).code).toBe(2);
    expect(await run('dance')).toMatchObject({
      code: 2,
      err: expect.stringMatching(/no command "dance"/) as string,
    });
  });
});

describe('the ways of a command line', () => {
  const path = () => file(PROJECT);
  const to = (name: string) => join(folder, name);

  it('help and version are asked for of all and of each command', async () => {
    expect(await run('--version')).toEqual(await run('sample', '--version'));
    const { version } = JSON.parse(readFileSync(join(here, '../package.json'), 'utf8')) as {
      version: string;
    };
    expect((await run('-v')).out).toBe(`kaizen ${version}\n`);
    for (const asked of [
      ['sample', '--help'],
      ['convert', '-h'],
      ['help', 'validate'],
    ]) {
      const { code, out, err } = await run(...asked);
      expect([code, err]).toEqual([0, '']);
      expect(out).toMatch(/^npx kaizen (sample|convert|validate) .*\n {2}\S/);
    }
    expect(await run()).toMatchObject({ code: 2, out: '' });
  });

  it('- reads and writes streams, by what the bytes are', async () => {
    typed = JSON.stringify(PROJECT);
    expect((await run('sample', '-', '--frames', '0:0')).out).toBe('frame,drum/rotate.y\n0,0\n');
    expect(await run('validate', '-')).toEqual({ code: 0, out: '', err: '' });
    const { out } = await run('convert', '-', '-');
    expect(JSON.parse(out)).toMatchObject({ format: 'kaizen', id: 'rig' });
    expect((await run('convert', path(), '-', '--to', 'csv')).out).toBe((await run('sample', path())).out);
    typed = 'salt';
    expect(await run('sample', '-')).toMatchObject({
      code: 1,
      err: expect.stringMatching(/^kaizen: standard input: /),
    });
  });

  it('after -- everything is a file name', async () => {
    const odd = file(PROJECT, '--rates.kaizen.json');
    expect((await run('sample', '--frames', '1:1', '--', odd)).out).toBe('frame,drum/rotate.y\n1,22.5\n');
    expect(await run('validate', '--', '--help')).toMatchObject({ code: 2, out: '' });
  });

  it.each([
    [['convert', 'IN', 'OUT.kaizen.json', '--frames', '0:2'], /--frames says nothing of a \.kaizen\.json/],
    [['convert', 'IN', 'OUT.kaizen.zip', '--clip', 'main', '--bake'], /--clip and --bake say/],
    [['convert', 'IN', 'OUT.csv', '--tolerance', '1'], /--tolerance says nothing of a \.csv/],
    [['convert', 'IN', 'OUT.glb', '--to', 'csv'], /--to goes with OUT - only/],
    [['convert', 'IN', '-', '--to', 'obj'], /--to is "obj"; it must be one of/],
    [['sample', 'IN', '--rates=yes'], /--rates takes no value/],
  ])('%j: an option that does not apply is wrong usage', async (argv, message) => {
    const named = argv.map((word) => word.replace(/^IN$/, path()).replace(/^OUT/, to('out')));
    const { code, err } = await run(...named);
    expect(code).toBe(2);
    expect(err).toMatch(message);
    expect(readdirSync(folder).filter((name) => name.startsWith('out'))).toEqual([]);
  });

  it('a link stays a link: what it leads to is replaced', async () => {
    writeFileSync(to('real.kaizen.json'), 'old');
    symlinkSync('real.kaizen.json', to('link.kaizen.json'));
    symlinkSync('not-yet.kaizen.json', to('ahead.kaizen.json'));
    for (const name of ['link', 'ahead']) {
      expect((await run('convert', path(), to(`${name}.kaizen.json`))).code).toBe(0);
      expect(lstatSync(to(`${name}.kaizen.json`)).isSymbolicLink()).toBe(true);
    }
    expect(JSON.parse(readFileSync(to('real.kaizen.json'), 'utf8'))).toMatchObject({ id: 'rig' });
    expect(JSON.parse(readFileSync(to('not-yet.kaizen.json'), 'utf8'))).toMatchObject({ id: 'rig' });
    symlinkSync('b.kaizen.json', to('a.kaizen.json'));
    symlinkSync('a.kaizen.json', to('b.kaizen.json'));
    expect(await run('convert', path(), to('a.kaizen.json'))).toMatchObject({
      code: 1,
      err: expect.stringMatching(/ring/),
    });
  });

  it('a full device is one line', async () => {
    symlinkSync('/dev/full', to('full.kaizen.json'));
    const { code, err } = await run('convert', path(), to('full.kaizen.json'));
    expect(code).toBe(1);
    expect(err).toMatch(/^kaizen: .*full\.kaizen\.json: it could not be written \((Error: )?ENOSPC/);
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('what a conversion leaves out is told, a line each', async () => {
    const more = {
      ...PROJECT,
      markers: [{ id: 'm', name: 'full', frame: 2 }],
      poses: [{ id: 'p', name: 'Lifted', values: { 'drum/rotate.y': 2 } }],
    };
    const { code, err } = await run('convert', file(more), to('out.glb'));
    expect(code).toBe(0);
    expect(err.trim().split('\n')).toEqual([
      expect.stringMatching(/rig\.kaizen\.json: 1 marker left out: \.glb has no place for that$/),
      expect.stringMatching(/1 pose on the shelf left out/),
    ]);
  });

  it('messages are one line of less than 300 letters, without control characters', async () => {
    const nasty = `\u001b[31mred\u0007${'x'.repeat(5000)}`;
    const { err } = await run('sample', file({ ...PROJECT, activeClip: nasty }));
    expect(err.length).toBeLessThanOrEqual(300);
    // eslint-disable-next-line no-control-regex -- this is what must not be there
    expect(err).not.toMatch(/[\u0000-\u0009\u000b-\u001f]/);
    expect((await run('validate', file({ ...PROJECT, gravity: nasty }))).out.length).toBeLessThanOrEqual(300);
  });
});
