import { activeClip } from '../project';
import { extentOf, fallOnto, reachFrom } from '../reading';
import { programOf, testProject, valueAt } from '../../testing/project';
import { USUAL_PATTERN, squashHere } from './squash-here';

const float = testProject({
  parts: [
    {
      id: 'float',
      name: 'Net float',
      kind: 'mesh',
      geometry: { shape: 'sphere', radius: 0.24 },
      rest: { translate: [1, 0.9, 0] },
    },
    {
      id: 'step',
      name: 'Step',
      kind: 'mesh',
      geometry: { shape: 'box', size: [2, 0.63, 2] },
      rest: { translate: [1, 0.315, 0] },
    },
  ],
});

function extent(project: typeof float, id: string, frame: number) {
  const program = programOf(project);
  const out = program.createOutput();
  program.run(frame, out);
  return extentOf(project, program, out, id)!;
}

describe('a squash laid about a contact', () => {
  it('is five held frames; outside them nothing changes, and in between nothing creeps', () => {
    const made = squashHere(float, 'float', 67, USUAL_PATTERN, true);
    const at = (frame: number) => valueAt(made, 'float/squash', frame);
    expect([64, 65, 65.9, 66, 66.9, 67, 67.5, 68, 68.9, 69, 70].map(at)).toEqual([
      0, 0, 0, 0.14, 0.14, -0.25, -0.25, 0.11, 0.11, 0, 0,
    ]);
    expect(made.parts[0]!.squash).toEqual({
      axis: 'y',
      anchor: [0, expect.closeTo(-0.24, 12), 0],
      frame: 'part',
    });
  });

  it('stands on the lowest point of all that rides on it, and of a turned part goes along the parent’s axes', () => {
    const group = testProject({
      parts: [
        { id: 'buoy', name: 'Buoy', kind: 'group', rest: { translate: [0, 2, 0], rotate: [0, 0, 90] } },
        { ...float.parts[0]!, parent: 'buoy', rest: { translate: [0.3, 0, 0] } },
      ],
    });
    const made = squashHere(group, 'buoy', 10, USUAL_PATTERN, true);
    const radius = expect.closeTo(0.3 - 0.24, 2) as unknown;
    expect(made.parts[0]!.squash).toEqual({ axis: 'y', anchor: [0, radius, 0], frame: 'parent' });
    const [whole, squashed] = [extent(made, 'buoy', 0), extent(made, 'buoy', 10)];
    expect(squashed.lowest[1]).toBeCloseTo(whole.lowest[1], 9);
    expect(squashed.most[1] - squashed.least[1]).toBeCloseTo(0.75 * (whole.most[1] - whole.least[1]), 9);
  });

  it('keeps what was keyed before and after it', () => {
    const channel = 'float/squash';
    const keyed = testProject({ parts: float.parts, range: { start: 0, end: 120 } }, [
      {
        channel,
        keys: [
          { frame: 0, value: 0 },
          { frame: 66, value: 0.3 },
          { frame: 120, value: -0.1 },
        ],
      },
    ]);
    const made = squashHere(keyed, 'float', 67, USUAL_PATTERN, true);
    for (const frame of [0, 12.5, 40, 65, 69, 80, 99.5, 120])
      expect(valueAt(made, channel, frame)).toBeCloseTo(valueAt(keyed, channel, frame), 9);
    expect(activeClip(made)!.curves[0]!.keys.map(({ frame }) => frame)).toEqual([0, 65, 66, 67, 68, 69, 120]);
  });

  it('keeps contact and volume: the lowest point stays, what it loses in height it gains across', () => {
    const made = squashHere(float, 'float', 67, USUAL_PATTERN, true);
    const [whole, squashed] = [extent(made, 'float', 60), extent(made, 'float', 67)];
    expect(squashed.lowest[1]).toBeCloseTo(whole.lowest[1], 12);
    expect(squashed.volume / whole.volume).toBeCloseTo(1, 12);
    expect(squashed.most[1] - squashed.least[1]).toBeCloseTo(0.75 * 0.48, 12);
    expect(squashed.most[0] - squashed.least[0]).toBeCloseTo(0.48 / Math.sqrt(0.75), 3);
  });

  it('extent and surfaces are read off deformed meshes in the world', () => {
    const program = programOf(float);
    const out = program.createOutput();
    program.run(0, out);
    expect(extentOf(float, program, out, 'step')).toMatchObject({
      volume: expect.closeTo(2.52, 12) as unknown,
    });
    expect(fallOnto(float, program, out, 'float', 'step')).toBeCloseTo(0.66 - 0.63, 12);
    expect(reachFrom(float, program, out, 'step', [1, 0, 0], [0, 1, 0])).toEqual({
      along: expect.closeTo(0.63, 12) as unknown,
      across: expect.closeTo(Math.SQRT2, 12) as unknown,
    });
    expect(fallOnto(float, program, out, 'step', 'float')).toBeCloseTo(-1.14, 3);
    const beside = {
      ...float,
      parts: float.parts.map((part, i) =>
        i === 0 ? { ...part, rest: { ...part.rest, translate: [9, 0.9, 0] as const } } : part,
      ),
    };
    const other = programOf(beside);
    other.run(0, out);
    expect(fallOnto(beside, other, out, 'float', 'step')).toBe(null);
    const rounded = testProject(
      {
        parts: [
          {
            ...float.parts[0]!,
            squash: { axis: 'y', anchor: [0, -0.24, 0], frame: 'part', round: { from: -0.1, to: 0.58 } },
          },
        ],
      },
      [{ channel: 'float/squash', keys: [{ frame: 0, value: -0.25 }] }],
    );
    const bulged = extent(rounded, 'float', 0);
    expect(bulged.lowest[1]).toBeCloseTo(0.66, 3);
    expect(bulged.most[0] - bulged.least[0]).toBeGreaterThan(0.48);
  });
});
