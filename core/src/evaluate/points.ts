import type { Vec3 } from '../project';
import { Deformation, placeOf } from '../rig';
import type { FrameOutput } from './moment';
import type { Program } from './program';

/** How a part's mesh is deformed, and the channels that this is read from. */
interface Deformed {
  readonly deformation: Deformation;
  readonly slots: readonly number[];
  readonly values: Float64Array;
}

/** Points of parts' undeformed meshes, ready to be found in the world. */
export class TrackedPoints {
  private readonly points: readonly {
    readonly part: number;
    readonly at: Vec3;
    readonly deformed: Deformed;
  }[];
  private readonly own = new Float64Array(3);
  private readonly place = new Float64Array(3);

  /** `points` are in the own space of a part, which is given by its place in the file. */
  constructor({ structure }: Program, points: readonly { readonly part: number; readonly at: Vec3 }[]) {
    const deformedOf = (part: number): Deformed => {
      const described = structure.parts[part]!;
      const deformation = new Deformation(described);
      const slots = deformation.properties.map((property) =>
        structure.slots.get(`${described.id}/${property}`)!,
      );
      return { deformation, slots, values: new Float64Array(slots.length) };
    };
    // What a squash comes to is worked out once for all points of a part.
    const byPart = new Map<number, Deformed>();
    this.points = points.map(({ part, at }) => {
      const deformed = byPart.get(part) ?? deformedOf(part);
      byPart.set(part, deformed);
      return { part, at, deformed };
    });
  }

  /** Writes the world place of each point, three numbers a point, at the frame that an output is filled for. */
  read(out: FrameOutput, places: Float64Array): void {
    const { own, place } = this;
    this.points.forEach(({ part, at, deformed: { deformation, slots, values } }, i) => {
      own.set(at);
      if (deformation.acts) {
        slots.forEach((slot, n) => (values[n] = out.channels[slot]!));
        deformation.move(own, values);
      }
      placeOf(place, out.world[part]!, [own[0]!, own[1]!, own[2]!]);
      places.set(place, i * 3);
    });
  }
}
