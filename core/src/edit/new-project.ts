import type { Project } from '../project';

/** An empty project: 24 frames a second, five seconds, gravity 9.81 m/s², floor at 0. */
export function newProject(id: string, name: string): Project {
  return {
    format: 'kaizen',
    version: 1,
    edition: 1,
    id,
    name,
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 120, loop: false },
    gravity: 9.81,
    floor: 0,
    parts: [],
    clips: [{ id: 'main', name: 'Main', curves: [] }],
    activeClip: 'main',
    arrangement: [],
    drivers: [],
    constraints: [],
    interlocks: [],
    assets: [],
    markers: [],
    sounds: [],
    poses: [],
  };
}
