import {
  DEFAULT_PART,
  defaultBlock,
  type Geometry,
  type Part,
  type Project,
  type SideMode,
  type Vec3,
} from '@kaizen/core';

/** Colours of the saltworks, linear as glTF: muted, none of them a colour of meaning. */
export const COLOURS = {
  timber: [0.59, 0.43, 0.24],
  darkTimber: [0.36, 0.26, 0.15],
  iron: [0.14, 0.18, 0.22],
  steel: [0.3, 0.37, 0.43],
  tin: [0.27, 0.45, 0.48],
  brass: [0.62, 0.42, 0.14],
  clay: [0.58, 0.32, 0.2],
  stone: [0.6, 0.57, 0.51],
  brine: [0.5, 0.68, 0.7],
  salt: [0.9, 0.89, 0.86],
  rope: [0.42, 0.35, 0.25],
} as const satisfies Record<string, Vec3>;

interface Placed {
  readonly parent?: string;
  readonly at?: Vec3;
  readonly turn?: Vec3;
  readonly size?: Vec3;
  readonly more?: Readonly<Record<string, unknown>>;
}

function placed(id: string, name: string, { parent, at, turn, size, more }: Placed): object {
  const rest = { translate: at ?? [0, 0, 0], rotate: turn ?? [0, 0, 0], scale: size ?? [1, 1, 1] };
  return { ...DEFAULT_PART, id, name, parent: parent ?? null, rest, ...more };
}

export function group(id: string, name: string, place: Placed = {}): Part {
  return { ...placed(id, name, place), kind: 'group' } as Part;
}

export function solid(id: string, name: string, geometry: Geometry, colour: Vec3, place: Placed = {}): Part {
  const material = { ...defaultBlock('material'), baseColor: [...colour, 1] };
  return { ...placed(id, name, place), kind: 'mesh', geometry, material, morphs: [] } as unknown as Part;
}

export function camera(id: string, name: string, focalLength: number, place: Placed): Part {
  const block = { ...defaultBlock('camera'), focalLength };
  return { ...placed(id, name, place), kind: 'camera', camera: block, turnOrder: 'YXZ' } as unknown as Part;
}

export const box = (x: number, y: number, z: number): Geometry => ({ shape: 'box', size: [x, y, z] });
export const rod = (radius: number, height: number): Geometry => ({ shape: 'cylinder', radius, height });
export const cone = (radius: number, topRadius: number, height: number): Geometry => ({
  shape: 'cylinder',
  radius,
  topRadius,
  height,
});

/** A beam between two points of a side view (x, y), square in section, at a depth z. */
export function beam(
  id: string,
  name: string,
  from: readonly [number, number],
  to: readonly [number, number],
  z: number,
  thick: number,
  colour: Vec3,
  parent?: string,
): Part {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  return solid(id, name, box(Math.hypot(dx, dy), thick, thick), colour, {
    at: [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2, z],
    turn: [0, 0, (Math.atan2(dy, dx) * 180) / Math.PI],
    ...(parent === undefined ? {} : { parent }),
  });
}

/** Parts gathered below a group: those that hung below nothing, or below `from`, hang below it now. */
export function gathered(
  id: string,
  name: string,
  parts: readonly Part[],
  from: string | null = null,
): Part[] {
  return [
    group(id, name, from === null ? {} : { parent: from }),
    ...parts.map((part) => (part.parent === from ? { ...part, parent: id } : part)),
  ];
}

/** A project whose curves all meet their keys in one way. */
export function withSides(project: Project, mode: SideMode): Project {
  const clips = project.clips.map((clip) => ({
    ...clip,
    curves: clip.curves.map((curve) => ({
      ...curve,
      keys: curve.keys.map((key) => ({
        ...key,
        in: { ...key.in, mode },
        out: { ...key.out, mode },
      })),
    })),
  }));
  return { ...project, clips };
}
