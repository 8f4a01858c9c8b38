import { activeClip, type Curve, type Part, type Project } from '../project';

/** What a format carries of one project, each a few plain words: exactly, by sampling, and not at all. */
export interface Carries {
  readonly exactly: readonly string[];
  readonly baked: readonly string[];
  readonly left: readonly string[];
}

function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** Words with their counts, those that are none left out. */
function those(...counts: readonly (readonly [count: number, one: string, many?: string])[]): string[] {
  return counts.flatMap(([count, one, many]) => (count > 0 ? [counted(count, one, many)] : []));
}

const isStraight = (curve: Curve) =>
  curve.keys.every(
    ({ leg, out }, i) =>
      i === curve.keys.length - 1 ||
      leg.kind === 'hold' ||
      (leg.kind === 'curve' && (out.reach === 1 / 3 || out.mode === 'linear')),
  );

/** Whether made morph targets or a rounded squash deform a part's mesh. */
function isDeformed(part: Part): boolean {
  return (
    part.squash?.round !== undefined ||
    (part.kind === 'mesh' && part.morphs.some(({ moves }) => moves !== undefined))
  );
}

/** Channels of a part that glTF has no place for. */
const ONLY_OURS = /\/(camera\.(focusDistance|fStop)|light\.sky|custom\.)/;

/** The project's own file carries all of it. */
export function projectCarries(): Carries {
  return { exactly: ['the whole project'], baked: [], left: [] };
}

/** What a glTF carries of a project, all its clips counted. */
export function gltfCarries(project: Project): Carries {
  const curves = project.clips.flatMap((clip) => clip.curves).filter(({ muted }) => !muted);
  const acting = (curve: Curve) => curve.treatments.some(({ muted }) => !muted);
  const drivers = project.drivers.filter(({ muted }) => !muted);
  const carried = curves.filter(({ channel }) => !ONLY_OURS.test(channel));
  const ending = (name: string) => (curve: Curve) => curve.channel.includes(name);
  const easedOnly = carried.filter(
    (curve) => !isStraight(curve) && !acting(curve) && !ending('/rotate.')(curve),
  );
  const looped = carried.filter(({ before, after }) => [before, after].some(({ mode }) => mode !== 'hold'));
  const moved = [...curves.map(({ channel }) => channel), ...drivers.map(({ target }) => target)];
  const limits = project.parts.filter((part) => Object.keys(part.limits).length > 0).length;
  return {
    exactly: [
      counted(project.parts.length, 'part'),
      ...those([project.clips.length, 'clip']),
      'pivots, shapes, materials',
      'Hold and Linear legs, and Curve legs of reach 1/3',
      'the project itself, for Kaizen',
    ],
    baked: [
      ...those(
        [carried.filter(ending('/rotate.')).length, 'turn'],
        [drivers.length, 'driver'],
        [project.constraints.filter(({ muted }) => !muted).length, 'constraint'],
        [project.arrangement.filter(({ muted }) => !muted).length, 'placed clip'],
        [project.parts.filter(isDeformed).length, 'deformed mesh', 'deformed meshes'],
        [carried.filter(acting).length, 'curve under treatments', 'curves under treatments'],
        [carried.filter(ending('/camera.focalLength')).length, 'lens', 'lenses'],
        [carried.filter(ending('/squash')).length, 'squash', 'squashes'],
        [
          easedOnly.length,
          'curve with eases, laws or long handles',
          'curves with eases, laws or long handles',
        ],
      ),
      ...those([looped.length, 'loop']).map((text) => `${text} over the range`),
    ],
    left: [
      ...those(
        [
          moved.filter((channel) => /\/camera\.(focusDistance|fStop)$/.test(channel)).length,
          'motion of focus or f-stop',
          'motions of focus or f-stop',
        ],
        [
          moved.filter((channel) => channel.includes('/custom.')).length,
          'motion of a channel of your own',
          'motions of channels of your own',
        ],
        [limits, 'part’s limits', 'parts’ limits'],
        [
          project.clips.flatMap((clip) => clip.curves).filter(({ otherTake }) => otherTake).length,
          'second take',
        ],
        [project.clips.flatMap((clip) => clip.curves).filter(({ muted }) => muted).length, 'muted curve'],
        [project.interlocks.length, 'interlock'],
        [project.markers.length, 'marker'],
        [project.sounds.length, 'sound'],
        [project.poses.length, 'pose on the shelf', 'poses on the shelf'],
      ),
    ],
  };
}

/** What a CSV carries: values on frames, and nothing else. */
export function csvCarries(project: Project, frames: number, channels: number): Carries {
  const others = project.clips.length - (activeClip(project) ? 1 : 0);
  return {
    exactly: [
      `the value of ${counted(channels, 'channel')} on ${counted(frames, 'frame')}, in the shortest form that reads back the same`,
    ],
    baked: [],
    left: ['parts, shapes and looks', 'what lies between the frames', ...those([others, 'other clip'])],
  };
}
