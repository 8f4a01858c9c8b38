import { activeClip, type Project } from '@kaizen/core';

/** What a format carries of this project: exactly, by sampling, and not at all. */
export interface Carried {
  readonly exactly: string;
  readonly baked: string;
  readonly left: string;
}

function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** For glTF: sampled are turns and what runs by drivers or between keys other than straight, held or cubic. */
export function gltfCarries(project: Project): Carried {
  const curves = activeClip(project)?.curves ?? [];
  const keyed = curves.filter((curve) => !curve.muted);
  const turns = keyed.filter((curve) => curve.channel.includes('/rotate.')).length;
  const drivers = project.drivers.filter((driver) => !driver.muted).length;
  const looped = keyed.filter((curve) =>
    [curve.before.mode, curve.after.mode].some((mode) => mode !== 'hold'),
  ).length;
  const baked = [
    turns > 0 ? counted(turns, 'turn') : '',
    drivers > 0 ? counted(drivers, 'driver') : '',
    looped > 0 ? `${counted(looped, 'loop')} over the range` : '',
  ].filter(Boolean);
  return {
    exactly: `${counted(project.parts.length, 'part')}, pivots, shapes, materials; Hold and Linear legs; Curve legs of reach 1/3; the project itself, for Kaizen`,
    baked:
      baked.length > 0
        ? `${baked.join(', ')}, eases and laws; within what stands below`
        : 'nothing in this project',
    left: ['focus, f-stop, limits', ...onRuler(project)].join(', '),
  };
}

/** What stands on the ruler: only Kaizen reads it. */
function onRuler({ markers, sounds }: Project): string[] {
  return [
    markers.length > 0 ? counted(markers.length, 'marker') : '',
    sounds.length > 0 ? counted(sounds.length, 'sound') : '',
  ].filter(Boolean);
}

export function csvCarries(frames: number, channels: number): Carried {
  return {
    exactly: `the value of ${counted(channels, 'channel')} on ${counted(frames, 'frame')}, in the shortest form that reads back the same`,
    baked: 'nothing: drivers are read as they are at the frame',
    left: 'parts, shapes, looks; anything between the frames',
  };
}
