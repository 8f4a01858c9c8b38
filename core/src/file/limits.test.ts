import { newProject } from '../edit';
import { compile } from '../evaluate';
import {
  documentPieces,
  LIMITS,
  nestingProblem,
  ProjectJoiner,
  readDocument,
  readProject,
  writeProject,
} from '.';
import type { Project } from '../project';

const plain = () => JSON.parse(writeProject(newProject('p', 'P'))) as Record<string, unknown>;
const group = (id: string, parent: string | null = null) => ({ id, kind: 'group', parent });
const keys = (count: number) => Array.from({ length: count }, (_, frame) => ({ frame, value: frame % 7 }));
const withCurve = (curve: object) => ({
  ...plain(),
  parts: [group('a')],
  clips: [{ id: 'main', curves: [{ channel: 'a/translate.x', ...curve }] }],
});
const said = (document: unknown) => {
  const read = readDocument(document);
  return read.ok ? 'read' : read.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join('\n');
};

describe('how big a project may be', () => {
  it('parts: 20,000 are read and evaluated, one more is refused', () => {
    const parts = Array.from({ length: LIMITS.parts }, (_, i) => group(`p${i}`));
    const read = readDocument({ ...plain(), parts });
    expect(read.ok && compile(read.value).ok).toBe(true);
    expect(said({ ...plain(), parts: [...parts, group('more')] })).toBe(
      '/parts: these are 20,001 parts; a project may have at most 20,000',
    );
  });

  it('parts below each other: 1,000 deep are evaluated, one more is refused', () => {
    const chain = (count: number) =>
      Array.from({ length: count }, (_, i) => group(`p${i}`, i > 0 ? `p${i - 1}` : null));
    const read = readDocument({ ...plain(), parts: chain(LIMITS.partDepth) });
    if (!read.ok) throw new Error('not read');
    const program = compile(read.value);
    if (!program.ok) throw new Error('not compiled');
    program.value.run(0, program.value.createOutput());
    expect(said({ ...plain(), parts: chain(LIMITS.partDepth + 1) })).toMatch(
      /p1000 is part number 1001 .* at most 1000/,
    );
  });

  it('keys: 2,000,000 in all, weights and second takes among them', () => {
    expect(
      said(
        withCurve({
          keys: Array(LIMITS.keys / 2 + 1).fill(null),
          otherTake: { keys: Array(LIMITS.keys / 2).fill(null) },
        }),
      ),
    ).toBe('/clips: these are 2,000,001 keys; a project may have at most 2,000,000');
  });

  it('200,000 keys in one curve are read, evaluated and written', () => {
    const read = readDocument(withCurve({ keys: keys(200_000) }));
    if (!read.ok) throw new Error('not read');
    const program = compile(read.value);
    expect(program.ok && program.value.channelValue(0, 100_001)).toBe(100_001 % 7);
    expect(writeProject(read.value).length).toBeGreaterThan(1e6);
  });

  it('treatments: 64 a curve', () => {
    const treatments = (count: number) => Array.from({ length: count }, () => ({ kind: 'gain', factor: 1 }));
    const read = readDocument(withCurve({ keys: keys(3), treatments: treatments(64) }));
    const program = read.ok ? compile(read.value) : read;
    expect(program.ok && program.value.channelRates(0, 1)[0]).toBe(1);
    expect(said(withCurve({ keys: keys(3), treatments: treatments(100_000) }))).toBe(
      '/clips/0/curves/0/treatments: these are 100,000 treatments; a curve may have at most 64',
    );
  });

  it('frames of the range: 1,000,000', () => {
    expect(said({ ...plain(), range: { start: 0, end: 1_000_000 } })).toBe('read');
    expect(said({ ...plain(), range: { start: -1, end: 1_000_000 } })).toMatch(
      /^\/range: these are 1,000,001 frames; the range/,
    );
  });

  it('JSON: 1,000 deep, in fields that Kaizen does not know too; brackets in text don’t count', () => {
    const nested = (depth: number) => `{"x":${'['.repeat(depth - 1)}${']'.repeat(depth - 1)}}`;
    expect(nestingProblem(nested(1000))).toBeNull();
    expect(nestingProblem(nested(1001))?.message).toMatch(/more than 1,000 deep, at character 1,005/);
    expect(nestingProblem(`{"x":"${'['.repeat(5000)}\\"${'{'.repeat(5000)}"}`)).toBeNull();
    const deep = JSON.stringify(plain()).replace('{', `{"notes":${'['.repeat(900)}${']'.repeat(900)},`);
    const read = readProject(deep);
    expect(read.ok && writeProject(read.value)).toContain('"notes"');
    expect(readProject('['.repeat(1e6))).toMatchObject({ ok: false });
  });
});

describe('a document in pieces', () => {
  it('comes together as the very project that reading it whole gives', () => {
    const parts = Array.from({ length: 900 }, (_, i) => ({
      ...group(`p${i}`),
      ...(i % 2 ? { name: `Part ${i}` } : {}),
    }));
    const weighed = { kind: 'gain', factor: 2, weight: { keys: keys(4) } };
    const curves = parts.map(({ id }, i) => ({
      channel: `${id}/translate.y`,
      keys: keys(20).map(
        ({ frame, value }) =>
          [
            { frame, value },
            { frame, value, out: { mode: 'flat' } },
            { out: { mode: 'flat' }, value, frame },
          ][i % 3],
      ),
      ...(i % 5 ? {} : { otherTake: { keys: keys(3) }, treatments: [weighed] }),
      note: 'kept',
    }));
    const document = {
      ...plain(),
      parts,
      clips: [
        { id: 'main', curves, mood: 'wet' },
        { id: 'empty', name: 'Empty' },
      ],
      activeClip: 'main',
      weather: 'rain',
    };
    const whole = readDocument(document);
    if (!whole.ok) throw new Error(said(document));
    const joiner = new ProjectJoiner();
    let pieces = 0;
    for (const piece of documentPieces(document).map(({ cut }) => cut())) {
      joiner.take(piece);
      pieces++;
    }
    expect(joiner.project).toEqual(whole.value);
    expect(writeProject(joiner.project)).toBe(writeProject(whole.value));
    expect(pieces).toBeGreaterThan(6);
  });

  it('may have no parts and no clips at all', () => {
    const joiner = new ProjectJoiner();
    const { parts: _, clips: __, activeClip: ___, ...bare } = plain();
    for (const { cut } of documentPieces(bare)) joiner.take(cut());
    const whole = readDocument(bare);
    expect(joiner.project).toEqual((whole as { value: Project }).value);
  });
});
