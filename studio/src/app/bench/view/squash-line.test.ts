import { compile, newPart, newProject, type Part, type Project } from '@kaizen/core';
import { Vector3 } from 'three';
import { amountFor, onEqualVolume, squashLine } from './squash-line';

/** A ball on the floor, squashed by so much about its lowest point. */
function ball(squash: number): Project {
  const base = newProject('p', 'P');
  const part = {
    ...newPart('sphere', 'Ball'),
    id: 'ball',
    rest: { translate: [2, 0.5, 0], rotate: [0, 0, 0], scale: [1, 1, 1] },
    squash: { axis: 'y', anchor: [0, -0.5, 0], frame: 'part' },
  } as Part;
  const key = { mode: 'flat', slope: 0, reach: 1 / 3 } as const;
  const curve = {
    channel: 'ball/squash',
    keys: [{ frame: 0, value: squash, in: key, out: key, joined: true, leg: { kind: 'hold' } as const }],
    before: { mode: 'hold', count: null, pin: null } as const,
    after: { mode: 'hold', count: null, pin: null } as const,
    treatments: [],
    muted: false,
    locked: false,
  };
  return { ...base, parts: [part], clips: [{ ...base.clips[0]!, curves: [curve] }] };
}

function lineOf(project: Project) {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const out = compiled.value.createOutput();
  compiled.value.run(0, out);
  return squashLine(project, { program: compiled.value, out, frame: 0 }, 'ball');
}

describe('the line of equal volume', () => {
  it('begins at the contact, and tells the unsquashed size whatever the squash', () => {
    for (const squash of [0, -0.3, 0.4]) {
      const line = lineOf(ball(squash))!;
      expect(line.contact.toArray().map((n) => Math.round(n * 1e9) / 1e9 + 0)).toEqual([2, 0, 0]);
      expect(line.axis.toArray().map((n) => n + 0)).toEqual([0, 1, 0]);
      expect(line.height).toBeCloseTo(1, 9);
      expect(line.radius).toBeCloseTo(0.5, 2);
      expect(line.amount).toBe(squash);
    }
  });

  it('keeps height times width squared, and no squash is less than may be', () => {
    const line = lineOf(ball(0))!;
    const volume = (share: number) => {
      const place = onEqualVolume(line, share, new Vector3(1, 0, 0));
      return place.y * (place.x - 2) ** 2;
    };
    for (const share of [0.4, 0.7, 1.5]) expect(volume(share)).toBeCloseTo(volume(1), 12);
    expect(amountFor(0.7)).toBeCloseTo(-0.3, 12);
    expect(amountFor(-3)).toBe(-0.95);
  });

  it('is not there for a part that does not squash', () => {
    const project = ball(0);
    const { squash: _, ...plain } = project.parts[0]!;
    expect(lineOf({ ...project, parts: [plain as Part], clips: newProject('p', 'P').clips })).toBe(null);
  });
});
