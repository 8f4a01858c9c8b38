import type { Project } from '../src/project';
import { testProject } from './project';

/** The channel that runs from 0 to 4 m in 48 frames. */
export const RUN = 'wagon/translate.x';

const at = (frame: number, value: number, leg = 'curve') => ({ frame, value, leg: { kind: leg } });

/** A wagon that runs, its wheel driven by the way it goes, and a hook whose lift holds and jumps. */
export function wagonProject(): Project {
  return testProject(
    {
      parts: ['wagon', 'wheel', 'hook'].map((id) => ({ id, name: id, kind: 'group' })),
      drivers: [
        {
          id: 'roll',
          target: 'wheel/rotate.z',
          kind: 'linkage',
          linkage: 'wheel',
          inputs: { distance: RUN },
          output: 'angle',
          params: { radius: 0.5 },
        },
      ],
    },
    [
      { channel: RUN, keys: [at(0, 0), at(24, 2), at(48, 4)] },
      { channel: 'hook/translate.y', keys: [at(12, 1, 'hold'), at(36, 3)] },
    ],
  );
}
