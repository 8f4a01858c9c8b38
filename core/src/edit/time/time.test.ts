import fc from 'fast-check';
import {
  closeGap,
  curveOf,
  mirrorValues,
  moveStakes,
  openGap,
  push,
  reverseTime,
  scaledSpan,
  stretch,
  type TimeEdit,
} from '../index';
import { resolveSide } from '../../curve';
import { curveContext } from '../curve-context';
import type { Project } from '../../project';
import { X, Y, drawn, framesOf, projectOf, refsOf, sampler, spanOf } from '../../../testing/drawn-curve';
import { testProject } from '../../../testing/project';

/** What holds for every edit of time: order, gaps, pins that exist, locked curves untouched, a project that is valid. */
function expectSound(before: Project, { project, refused }: TimeEdit): void {
  const frames = framesOf(project);
  frames.forEach((frame, i) => i > 0 && expect(frame).toBeGreaterThan(frames[i - 1]!));
  expect(curveOf(project, Y)).toBe(curveOf(before, Y));
  const { pin } = curveOf(project, X)!.after;
  if (pin !== null) expect(frames.slice(1, -1)).toContain(pin);
  if (refused.length > 0) expect(project).toBe(before);
}

const amounts = fc.integer({ min: -40, max: 60 });
const places = fc.integer({ min: -10, max: 150 });

describe('every edit of time keeps the order of keys, their pins and locked channels', () => {
  const slopes = fc.constantFrom('shape' as const, 'speed' as const);
  it.each<[string, (project: Project, at: number, by: number, keep: 'shape' | 'speed') => TimeEdit]>([
    ['push after', (project, at, by, keep) => push(project, [X, Y], at, by, 'after', keep)],
    ['push before', (project, at, by, keep) => push(project, [X, Y], at, by, 'before', keep)],
    ['open gap', (project, at, by, keep) => openGap(project, [X, Y], at, Math.abs(by), keep)],
    ['close gap', (project, at, by, keep) => closeGap(project, [X, Y], at, at + Math.abs(by), keep)],
    [
      'stretch, the rest following',
      (project, at, by, keep) => {
        const span = { start: at, end: at + 1 + Math.abs(by) };
        return stretch(project, [X, Y], span, scaledSpan(span, 0.37), 'follows', keep);
      },
    ],
    [
      'stretch, the rest staying',
      (project, at, by, keep) => {
        const span = { start: at, end: at + 1 + Math.abs(by) };
        return stretch(project, [X, Y], span, scaledSpan(span, 1.9), 'stays', keep);
      },
    ],
    [
      'stakes',
      (project, at, by, keep) =>
        moveStakes(
          project,
          [X, Y],
          [
            { from: at, to: at },
            { from: at + 20, to: at + 20 + by / 5 },
            { from: at + 45, to: at + 40 },
          ],
          keep,
        ),
    ],
    ['reverse time', (project) => reverseTime(project, [X, Y], spanOf(project))],
  ])('%s', (_, edit) => {
    fc.assert(
      fc.property(drawn, places, amounts, slopes, (curve, at, by, keep) => {
        const project = projectOf(curve);
        const result = edit(project, at, by, keep);
        if (result.project.clips[0]!.curves.some(({ channel }) => channel === X))
          expectSound(project, result);
      }),
    );
  });
});

describe('edits that have an exact inverse', () => {
  it('a gap opened and closed again gives the very same keys, between frames too', () => {
    fc.assert(
      fc.property(
        drawn,
        places,
        fc.integer({ min: 1, max: 4000 }).map((n) => n / 100),
        fc.constantFrom(0, 0.1, 0.37),
        (curve, at, frames, off) => {
          const base = projectOf(curve);
          const project = push(base, [X], -1000, off, 'after').project;
          const opened = openGap(project, [X, Y], at, frames);
          const closed = closeGap(opened.project, [X, Y], at, Math.round((at + frames) * 1e6) / 1e6);
          expect(curveOf(closed.project, X)).toEqual(curveOf(project, X));
        },
      ),
    );
  });

  it('a push there and back, when nothing is passed', () => {
    fc.assert(
      fc.property(drawn, places, fc.integer({ min: 0, max: 60 }), (curve, at, by) => {
        const project = projectOf(curve);
        const there = push(project, [X], at, by, 'after');
        // after the push what stood right of `at` stands right of it still
        expect(curveOf(push(there.project, [X], at, -by, 'after').project, X)).toEqual(curveOf(project, X));
      }),
    );
  });

  it('values mirrored twice about nothing are the same', () => {
    fc.assert(
      fc.property(drawn, (curve) => {
        const project = projectOf(curve);
        const once = mirrorValues(project, refsOf(project), () => 0);
        const twice = mirrorValues(once, refsOf(project), () => 0);
        expect(curveOf(twice, X)).toEqual(curveOf(project, X));
      }),
    );
  });

  it('time reversed twice samples as it did', () => {
    fc.assert(
      fc.property(drawn, (curve) => {
        const project = projectOf(curve);
        const span = spanOf(project);
        const twice = reverseTime(reverseTime(project, [X], span).project, [X], span).project;
        expect(framesOf(twice)).toEqual(framesOf(project));
        const [was, is] = [sampler(project), sampler(twice)];
        for (let f = span.start - 40.3; f < span.end + 40; f += 0.7) expect(is(f)).toBeCloseTo(was(f), 8);
      }),
    );
  });
});

describe('slopes as promised', () => {
  const context = curveContext(testProject());
  it('shape: a whole curve stretched samples as the old one at stretched frames', () => {
    fc.assert(
      fc.property(drawn, fc.double({ min: 0.2, max: 4, noNaN: true }), (curve, factor) => {
        const legsWithoutGravity = curve.keys.map((key) =>
          key.leg.kind === 'ballistic' ? { ...key, leg: { kind: 'curve' as const } } : key,
        );
        const project = projectOf({ ...curve, keys: legsWithoutGravity });
        const span = spanOf(project);
        const { project: next } = stretch(project, [X], span, scaledSpan(span, factor), 'follows', 'shape');
        const [was, is] = [sampler(project), sampler(next)];
        for (let f = span.start + 0.31; f < span.end; f += 0.77)
          expect(is(span.start + (f - span.start) * factor)).toBeCloseTo(was(f), 6);
      }),
    );
  });

  it('speed: set slopes per second are the same numbers as before', () => {
    fc.assert(
      fc.property(drawn, fc.double({ min: 0.2, max: 4, noNaN: true }), (curve, factor) => {
        const project = projectOf(curve);
        const span = spanOf(project);
        const { project: next } = stretch(project, [X], span, scaledSpan(span, factor), 'follows', 'speed');
        const [was, is] = [curveOf(project, X)!, curveOf(next, X)!];
        was.keys.forEach((key, i) => {
          if (key.out.mode !== 'set') return;
          expect(resolveSide(is, i, 'out', context).slope).toBe(resolveSide(was, i, 'out', context).slope);
        });
      }),
    );
  });
});
