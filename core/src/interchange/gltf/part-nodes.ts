import type { Part, Vec3 } from '../../project';
import { partProperties } from '../../project';
import { constantJet, type Jet } from '../../law';
import { quaternionJets, squashFactors, type NodePath, type Shot } from '../../shot';
import type { GltfNode } from './document';

/** One node of a part's chain and what moves it: for each path the vector of jets at a frame, per frame. */
export interface ChainNode {
  readonly node: GltfNode;
  readonly tracks: readonly {
    readonly path: NodePath;
    readonly channels: readonly string[];
    readonly jets: (frame: number) => readonly Jet[];
    /** The part's finished matrix moves it: constraints hold it. */
    readonly held?: true;
  }[];
}

const AXES = ['x', 'y', 'z'] as const;

/**
 * A part as a chain of plain nodes that multiply to its local matrix: `{t+p, R, S}` → `{−p}`, with squash
 * `{t+p, R, S}` → `{a−p, K}` → `{−a}` in the part's frame and `{t+a, K}` → `{p−a, R, S}` → `{−p}` in the parent's.
 * Geometry and children hang on the last node.
 */
export function partChain(shot: Shot, part: Part, place: number): ChainNode[] {
  if (shot.isHeld(place)) return [heldNode(shot, place)];
  const read = new PartReader(shot, part);
  const { pivot } = part;
  const anchor = part.squash?.anchor ?? [0, 0, 0];
  const turned = (offset: Vec3, moves: boolean): ChainNode =>
    read.node({ offset: moves ? offset : null, fixed: offset, turn: true });
  if (!read.moves(['squash']) || part.squash?.round) {
    const first = turned(pivot, true);
    return isZero(pivot) ? [first] : [first, fixedNode(negative(pivot))];
  }
  if (part.squash?.frame === 'parent') {
    return [
      read.node({ offset: anchor, fixed: anchor, squash: true }),
      turned(difference(pivot, anchor), false),
      fixedNode(negative(pivot)),
    ];
  }
  return [
    turned(pivot, true),
    read.node({ offset: null, fixed: difference(anchor, pivot), squash: true }),
    fixedNode(negative(anchor)),
  ];
}

/** The one node of a part that constraints hold: as it stands at the start, moved by the tracks of its finished matrix. */
function heldNode(shot: Shot, place: number): ChainNode {
  const { translation, rotation, scale } = shot.matrixOf(place).at(shot.settings.start);
  const tracks = (['translation', 'rotation', 'scale'] as const).map((path) => ({
    path,
    channels: [],
    jets: () => [],
    held: true as const,
  }));
  const node = { translation: [...translation], rotation: [...rotation], scale: [...scale] };
  return { node: withoutDefaults(node), tracks };
}

interface NodeSpec {
  /** Added to the part's translate; null where this node doesn't carry it. */
  readonly offset: Vec3 | null;
  readonly fixed: Vec3;
  readonly turn?: true;
  readonly squash?: true;
}

class PartReader {
  private readonly slots = new Map<string, number>();
  private readonly rest = new Map<string, number>();

  constructor(
    private readonly shot: Shot,
    private readonly part: Part,
  ) {
    for (const { property, rest } of partProperties(part)) {
      this.slots.set(property, shot.slotOf(part.id, property));
      this.rest.set(property, rest);
    }
  }

  moves(properties: readonly string[]): boolean {
    return properties.some((property) => this.shot.moving.has(`${this.part.id}/${property}`));
  }

  private jet(property: string, frame: number): Jet {
    if (!this.moves([property])) return constantJet(this.rest.get(property) ?? 0);
    return this.shot.channelJet(this.slots.get(property)!, frame);
  }

  private names(properties: readonly string[]): string[] {
    return properties.map((property) => `${this.part.id}/${property}`);
  }

  node({ offset, fixed, turn, squash }: NodeSpec): ChainNode {
    const tracks: ChainNode['tracks'][number][] = [];
    const node: GltfNode = {};
    const vec = (group: string) => AXES.map((axis) => `${group}.${axis}`);
    const add = (
      path: NodePath,
      properties: readonly string[],
      jets: (frame: number) => readonly Jet[],
      start: readonly number[],
    ) => {
      node[path] = [...start];
      if (this.moves(properties)) tracks.push({ path, channels: this.names(properties), jets });
    };
    if (offset) {
      const place = (frame: number) =>
        vec('translate').map((property, i): Jet => {
          const [v, d1, d2, d3] = this.jet(property, frame);
          return [v + (offset[i] ?? 0), d1, d2, d3];
        });
      add(
        'translation',
        vec('translate'),
        place,
        this.part.rest.translate.map((v, i) => v + (offset[i] ?? 0)),
      );
    } else {
      node.translation = [...fixed];
    }
    if (turn) {
      const rotation = (frame: number) =>
        quaternionJets(
          this.part.turnOrder,
          vec('rotate').map((property) => this.jet(property, frame)) as [Jet, Jet, Jet],
        );
      const atRest = quaternionJets(
        this.part.turnOrder,
        this.part.rest.rotate.map(constantJet) as unknown as [Jet, Jet, Jet],
      );
      add(
        'rotation',
        vec('rotate'),
        rotation,
        atRest.map((jet) => jet[0]),
      );
      add(
        'scale',
        vec('scale'),
        (frame) => vec('scale').map((property) => this.jet(property, frame)),
        this.part.rest.scale,
      );
    }
    if (squash) {
      const along = AXES.indexOf(this.part.squash?.axis ?? 'y');
      const factors = (frame: number) => {
        const k = squashFactors(this.jet('squash', frame));
        return AXES.map((_, i) => (i === along ? k.along : k.across));
      };
      add('scale', ['squash'], factors, [1, 1, 1]);
    }
    return { node: withoutDefaults(node), tracks };
  }
}

function withoutDefaults(node: GltfNode): GltfNode {
  const kept: GltfNode = { ...node };
  if (kept.translation && isZero(kept.translation)) delete kept.translation;
  if (kept.scale?.every((s) => s === 1)) delete kept.scale;
  if (kept.rotation && isZero(kept.rotation.slice(0, 3)) && kept.rotation[3] === 1) delete kept.rotation;
  return kept;
}

function fixedNode(translation: Vec3): ChainNode {
  return { node: isZero(translation) ? {} : { translation: [...translation] }, tracks: [] };
}
function isZero(vector: readonly number[]): boolean {
  return vector.every((v) => v === 0);
}
function negative([x, y, z]: Vec3): Vec3 {
  return [-x, -y, -z];
}
function difference(a: Vec3, b: Vec3): Vec3 {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}
