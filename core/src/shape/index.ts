import {
  assetId,
  defined,
  kinds,
  list,
  maybe,
  number,
  numbers,
  partId,
  text,
  whole,
  type Field,
  type Fields,
  type Geometry,
} from '../project';
import { extrude } from './extrude';
import { gear } from './gear';
import { MeshBuilder, type TriangleMesh } from './mesh';
import { lathe, revolve } from './revolve';

export type Shape = Exclude<Geometry, { shape: 'asset' }>;

/** All there is to say of a simple shape. */
interface ShapeKind<T> {
  readonly fields: Fields;
  readonly mesh: (shape: T) => TriangleMesh;
}

const extent = (bounds: object = { exclusiveMinimum: 0 }): Field => number({ ...bounds, unit: 'm' });
const fromZero = (): Field => extent({ minimum: 0 });

/** The shapes by name, all centred on the part's origin, about +Y where round (contract §2). One entry a shape. */
const SHAPES: { readonly [K in Shape['shape']]: ShapeKind<Extract<Shape, { shape: K }>> } = {
  box: {
    fields: { size: numbers(3, { exclusiveMinimum: 0 }) },
    mesh: ({ size: [x, y, z] }) => box(x, y, z),
  },
  cylinder: {
    fields: { radius: fromZero(), height: extent(), topRadius: maybe(fromZero()) },
    mesh: ({ radius, height, topRadius }) => revolve(cylinderProfile(radius, topRadius ?? radius, height)),
  },
  sphere: {
    fields: { radius: extent() },
    mesh: ({ radius }) => revolve(arc(24, (a) => [radius * Math.cos(a), radius * Math.sin(a)])),
  },
  torus: {
    fields: { radius: extent(), tube: extent() },
    mesh: ({ radius, tube }) =>
      revolve(
        ring(24, (a) => [radius + tube * Math.cos(a), tube * Math.sin(a)]),
        48,
      ),
  },
  plane: {
    fields: { size: numbers(2, { exclusiveMinimum: 0 }) },
    mesh: ({ size: [x, z] }) => plane(x, z),
  },
  lathe: {
    fields: { profile: list(numbers(2), { minItems: 2 }) },
    mesh: ({ profile }) => lathe(profile),
  },
  extrude: {
    fields: { outline: list(numbers(2), { minItems: 3 }), depth: extent() },
    mesh: ({ outline, depth }) => extrude(outline, depth),
  },
  gear: {
    fields: {
      teeth: whole({ minimum: 3, maximum: 2000 }),
      module: extent(),
      width: extent(),
      bore: maybe(fromZero()),
    },
    mesh: ({ teeth, module, width, bore }) => gear(teeth, module, width, bore),
  },
};

/** A geometry as a file has it: a simple shape, or a node of a model. */
export const GEOMETRY: Field = defined(
  'geometry',
  kinds('shape', {
    ...Object.fromEntries(Object.entries(SHAPES).map(([shape, { fields }]) => [shape, fields])),
    asset: { asset: assetId(), node: text(), skin: maybe(list(partId())) },
  }),
);

/** What a simple shape is made of: its fields, in their order. */
export function shapeFields(shape: Shape['shape']): Fields {
  return SHAPES[shape].fields;
}

/** A shape with every length times a factor: its numbers in metres, and the places of its points. */
export function scaledShape(shape: Shape, factor: number): Shape {
  const { fields } = SHAPES[shape.shape];
  const scaled = (value: unknown, unit: string | undefined): unknown => {
    if (Array.isArray(value)) return value.map((each) => scaled(each, 'm'));
    return typeof value === 'number' && unit === 'm' ? value * factor : value;
  };
  const made = Object.entries(shape).map(([name, value]) => [name, scaled(value, fields[name]?.unit)]);
  return Object.fromEntries(made) as Shape;
}

const cache = new WeakMap<Geometry, TriangleMesh>();

/** The triangles of a simple shape; a geometry object is built once. */
export function shapeMesh(shape: Shape): TriangleMesh {
  let mesh = cache.get(shape);
  if (!mesh) {
    mesh = (SHAPES[shape.shape] as ShapeKind<Shape>).mesh(shape);
    cache.set(shape, mesh);
  }
  return mesh;
}

function box(x: number, y: number, z: number): TriangleMesh {
  const mesh = new MeshBuilder();
  const [a, b, c] = [x / 2, y / 2, z / 2];
  mesh.flat([a, -b, c], [a, -b, -c], [a, b, -c], [a, b, c]);
  mesh.flat([-a, -b, -c], [-a, -b, c], [-a, b, c], [-a, b, -c]);
  mesh.flat([-a, b, c], [a, b, c], [a, b, -c], [-a, b, -c]);
  mesh.flat([-a, -b, -c], [a, -b, -c], [a, -b, c], [-a, -b, c]);
  mesh.flat([-a, -b, c], [a, -b, c], [a, b, c], [-a, b, c]);
  mesh.flat([a, -b, -c], [-a, -b, -c], [-a, b, -c], [a, b, -c]);
  return mesh;
}

function plane(x: number, z: number): TriangleMesh {
  const mesh = new MeshBuilder();
  mesh.flat([-x / 2, 0, z / 2], [x / 2, 0, z / 2], [x / 2, 0, -z / 2], [-x / 2, 0, -z / 2]);
  return mesh;
}

function cylinderProfile(bottom: number, top: number, height: number): [number, number][] {
  const profile: [number, number][] = [
    [0, -height / 2],
    [bottom, -height / 2],
    [top, height / 2],
    [0, height / 2],
  ];
  return profile.filter(([r], i) => i === 0 || i === 3 || r > 0);
}

function arc(steps: number, at: (angle: number) => [number, number]): [number, number][] {
  return Array.from({ length: steps + 1 }, (_, i): [number, number] => {
    if (i === 0 || i === steps) return [0, at(((i / steps) * 2 - 1) * (Math.PI / 2))[1]];
    return at(((i / steps) * 2 - 1) * (Math.PI / 2));
  });
}

function ring(steps: number, at: (angle: number) => [number, number]): [number, number][] {
  return Array.from({ length: steps + 1 }, (_, i) => at((2 * Math.PI * i) / steps));
}

export type { TriangleMesh } from './mesh';
export { refineMesh } from './refine';
export { meshEdges, type MeshEdges } from './mesh-edges';
