import fc from 'fast-check';
import { replacedAt, type Project } from '../project';
import { programOf, slotOf, testProject } from '../../testing/project';
import { line } from '../../testing/rigged';
import { compile, type Program } from './index';

const CHANNELS = ['translate.x', 'translate.y', 'rotate.z', 'scale.x', 'translate.z'].map(
  (property) => `wagon/${property}`,
);
const CLIP = {
  id: 'main',
  name: 'Main',
  curves: CHANNELS.map((channel, i) => line(channel, [0, i], [8, 5 * i])),
};
const PLACED = { id: 'p', clip: 'main', start: 2, from: 0, to: 8 };

/** All channels at a frame, by a program that shares nothing with any other. */
const asked = (project: Project, frame: number): number[] => {
  const program = programOf(structuredClone(project));
  const out = program.createOutput();
  program.run(frame, out);
  return CHANNELS.map((channel) => out.channels[slotOf(program, channel)]!);
};

/** The project with the first curve of its clip lifted. */
function lifted(project: Project, by: number): Project {
  const clip = project.clips[0]!;
  const curve = clip.curves[0]!;
  const keys = curve.keys.map((key) => ({ ...key, value: key.value + by }));
  return { ...project, clips: [{ ...clip, curves: replacedAt(clip.curves, 0, { ...curve, keys }) }] };
}

describe('curves compiled some at a time', () => {
  it.each([
    ['of a clip', {}],
    ['of placed clips', { arrangement: [PLACED] }],
  ])('%s give what those compiled at once give, whatever is asked meanwhile', (_, more) => {
    const frame = fc.integer({ min: -2, max: 12 });
    const step = fc.oneof(
      fc.record({ is: fc.constant('compile' as const), count: fc.integer({ min: 1, max: 3 }) }),
      fc.record({ is: fc.constant('value' as const), of: fc.nat({ max: CHANNELS.length - 1 }), frame }),
      fc.record({ is: fc.constant('run' as const), frame }),
      fc.record({ is: fc.constant('edit' as const), by: fc.integer({ min: 1, max: 3 }) }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 10 }), (steps) => {
        let project = testProject({ clips: [CLIP], activeClip: 'main', ...more });
        let program: Program = programOf(project);
        const out = program.createOutput();
        const all = () => CHANNELS.map((channel) => out.channels[slotOf(program, channel)]!);
        for (const each of steps) {
          if (each.is === 'compile') program.compileSome(each.count);
          else if (each.is === 'value')
            expect(program.channelValue(slotOf(program, CHANNELS[each.of]!), each.frame)).toBe(
              asked(project, each.frame)[each.of],
            );
          else if (each.is === 'run') {
            program.run(each.frame, out);
            expect(all()).toEqual(asked(project, each.frame));
          } else {
            project = lifted(project, each.by);
            const next = compile(project, { previous: program });
            if (!next.ok) throw new Error('not compiled');
            program = next.value;
          }
        }
        program.run(5, out);
        expect(all()).toEqual(asked(project, 5));
      }),
    );
  });
});
