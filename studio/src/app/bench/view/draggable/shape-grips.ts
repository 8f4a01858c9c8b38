import { computed, inject, Injectable } from '@angular/core';
import { inWorld, partOf, type MeshPart, type Project } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownNumber, signedNumber } from '../../../ui/amount';
import { Proposals } from '../../stage/proposals';
import { Stage } from '../../stage/stage';
import { alongAxis, rayThrough, toScreen, type Eye } from '../grip-math';
import { shapeHandles, type ShapeHandle } from '../shape-handles';
import { ViewDraggable, type At, type Drawn, type ViewDrag } from './draggable';
import { diamondAt } from './paths';

/** A handle in the world: its place and direction there; `long` is how long an own metre is. */
interface Placed {
  readonly handle: ShapeHandle;
  readonly place: Vector3;
  readonly direction: Vector3;
  readonly long: number;
}

/** Grips on the lengths of the chosen shape: sizes, the bounds of its rounded squash, soft radii. The view shows each change at once. */
@Injectable({ providedIn: 'root' })
export class ShapeGrips extends ViewDraggable<Placed> {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);

  private readonly placed = computed((): readonly Placed[] => {
    const { parts, shapeGrips } = this.studio.bench();
    const now = this.stage.now();
    const project = this.stage.shown();
    const part = project && partOf(project, parts.at(-1) ?? '');
    if (!shapeGrips || !now || part?.kind !== 'mesh' || this.stage.playing() || this.studio.readOnly())
      return [];
    const world = now.out.world[now.program.structure.partIndex.get(part.id) ?? -1];
    return world ? placedHandles(part, world) : [];
  });

  draw(eye: Eye): readonly Drawn<Placed>[] {
    return this.placed().flatMap((target): readonly Drawn<Placed>[] => {
      const { label } = target.handle;
      const at = toScreen(eye, target.place);
      if (!at) return [];
      const found = { target, name: label, hint: `Drag to change the ${label}`, line: [at], within: 9 };
      return [{ tone: 'select', marks: [{ path: diamondAt(at, 8.5), look: 'hollow' }], found }];
    });
  }

  begin(eye: Eye, down: At, { handle, place, direction, long }: Placed): ViewDrag {
    const wayAt = ({ x, y }: At) => alongAxis(rayThrough(eye, x, y), place, direction) / long;
    const grabbed = wayAt(down);
    const valueAt = (at: At) =>
      Math.round((handle.value + (wayAt(at) - grabbed) * handle.factor) * 1e4) / 1e4;
    const proposal = (value: number) => ({
      label: `Change ${handle.label}`,
      edit: (project: Project) => handle.edit(project, value),
    });
    return {
      move: (at) => {
        const value = valueAt(at);
        this.proposals.show(proposal(value));
        return `${handle.label} ${shownNumber(handle.value, 3)} → ${shownNumber(value, 3)} m (${signedNumber(value - handle.value, 3)})`;
      },
      end: (at) => {
        const value = valueAt(at);
        if (value === handle.value) this.proposals.drop();
        else this.proposals.take(proposal(value));
      },
      cancel: () => this.proposals.drop(),
    };
  }
}

function placedHandles(part: MeshPart, world: Float64Array): readonly Placed[] {
  return shapeHandles(part).flatMap((handle): readonly Placed[] => {
    const place = new Vector3(...inWorld(world, handle.at));
    const beyond = handle.at.map((n, i) => n + handle.along[i]!) as unknown as typeof handle.at;
    const direction = new Vector3(...inWorld(world, beyond)).sub(place);
    const long = direction.length();
    return long > 1e-9 ? [{ handle, place, direction: direction.divideScalar(long), long }] : [];
  });
}
