import {
  type CameraBlock,
  type Geometry,
  type LightBlock,
  type Material,
  type Part,
  type Rest,
} from '../project';
import { defaultBlock } from '../file';

/** What a new part can be: a group, a simple shape, a camera or a light. */
export type NewPartKind =
  'group' | 'box' | 'cylinder' | 'sphere' | 'torus' | 'plane' | 'gear' | 'camera' | 'light';

const NEW_SHAPES: Readonly<Record<Exclude<NewPartKind, 'group' | 'camera' | 'light'>, Geometry>> = {
  box: { shape: 'box', size: [1, 1, 1] },
  cylinder: { shape: 'cylinder', radius: 0.5, height: 1 },
  sphere: { shape: 'sphere', radius: 0.5 },
  torus: { shape: 'torus', radius: 0.5, tube: 0.1 },
  plane: { shape: 'plane', size: [2, 2] },
  gear: { shape: 'gear', teeth: 20, module: 0.05, width: 0.15, bore: 0.1 },
};

/** A part of about a metre: shapes stand on the ground, a camera stands back and looks at them, a light shines down. */
export function newPart(kind: NewPartKind, name: string): Part {
  const upright: Rest = { translate: [0, 0, 0], rotate: [0, 0, 0], scale: [1, 1, 1] };
  const base = {
    id: kind,
    name,
    parent: null,
    rest: upright,
    pivot: [0, 0, 0] as const,
    turnOrder: 'XYZ' as const,
    custom: [],
    limits: {},
    visible: 1,
  };
  if (kind === 'group') return { ...base, kind };
  if (kind === 'camera') {
    return {
      ...base,
      kind,
      rest: { ...upright, translate: [0, 1.2, 6] },
      camera: defaultBlock('camera') as unknown as CameraBlock,
    };
  }
  if (kind === 'light') {
    return {
      ...base,
      kind,
      rest: { ...upright, translate: [2, 4, 2], rotate: [-60, 30, 0] },
      light: defaultBlock('light') as unknown as LightBlock,
    };
  }
  const geometry = NEW_SHAPES[kind];
  const height = kind === 'plane' ? 0 : kind === 'torus' ? 0.1 : kind === 'gear' ? 0.075 : 0.5;
  return {
    ...base,
    kind: 'mesh',
    rest: { ...upright, translate: [0, height, 0] },
    geometry,
    material: defaultBlock('material') as unknown as Material,
    morphs: [],
  };
}
