import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { inWorld, partOf, type MeshPart } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../state/studio';
import { shownNumber, signedNumber } from '../../ui/amount';
import { followDrag } from '../../ui/follow-drag';
import { Proposals } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { GripChip } from './grip-chip';
import { alongAxis, rayThrough, toScreen, type Eye } from './grip-math';
import { shapeHandles, type ShapeHandle } from './shape-handles';

/** A handle as it is drawn, with its place and direction in the world; `long` is how long an own metre is there. */
interface Drawn {
  readonly handle: ShapeHandle;
  readonly x: number;
  readonly y: number;
  readonly place: Vector3;
  readonly direction: Vector3;
  readonly long: number;
}

/** Grips on the lengths of the chosen shape: sizes, the bounds of its rounded squash, soft radii. The view shows each change at once. */
@Component({
  selector: 'kz-shape-grips',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg aria-hidden="true">
      @for (each of drawn(); track each.handle.label + $index) {
        <rect
          [attr.data-grip]="each.handle.label"
          [attr.x]="each.x - 6"
          [attr.y]="each.y - 6"
          width="12"
          height="12"
          [attr.transform]="'rotate(45 ' + each.x + ' ' + each.y + ')'"
          (pointerdown)="grab($event, each)"
        >
          <title>{{ each.handle.label }}</title>
        </rect>
      }
    </svg>
  `,
  styles: `
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    rect {
      fill: var(--sheet);
      stroke: var(--select);
      stroke-width: 2;
      pointer-events: auto;
      cursor: grab;

      &:hover {
        fill: var(--select);
      }
    }
  `,
})
export class ShapeGripsComponent {
  readonly eye = input.required<Eye>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  private readonly chip = inject(GripChip);

  readonly drawn = computed((): readonly Drawn[] => {
    const { parts, shapeGrips } = this.studio.bench();
    const now = this.stage.now();
    const project = this.stage.shown();
    const part = project && partOf(project, parts.at(-1) ?? '');
    if (!shapeGrips || !now || part?.kind !== 'mesh' || this.stage.playing() || this.studio.readOnly())
      return [];
    const world = now.out.world[now.program.structure.partIndex.get(part.id) ?? -1];
    return world ? this.placed(part, world) : [];
  });

  private placed(part: MeshPart, world: Float64Array): readonly Drawn[] {
    return shapeHandles(part).flatMap((handle): readonly Drawn[] => {
      const place = new Vector3(...inWorld(world, handle.at));
      const beyond = handle.at.map((n, i) => n + handle.along[i]!) as unknown as typeof handle.at;
      const direction = new Vector3(...inWorld(world, beyond)).sub(place);
      const at = toScreen(this.eye(), place);
      const long = direction.length();
      return at && long > 1e-9
        ? [{ handle, x: at.x, y: at.y, place, direction: direction.divideScalar(long), long }]
        : [];
    });
  }

  grab(down: PointerEvent, { handle, place, direction, long }: Drawn): void {
    if (down.button !== 0) return;
    down.preventDefault();
    down.stopPropagation();
    const box = (down.target as Element).closest('svg')!.getBoundingClientRect();
    const eye = this.eye();
    const wayAt = (event: PointerEvent) =>
      alongAxis(rayThrough(eye, event.clientX - box.left, event.clientY - box.top), place, direction) / long;
    const grabbed = wayAt(down);
    const valueAt = (event: PointerEvent) =>
      Math.round((handle.value + (wayAt(event) - grabbed) * handle.factor) * 1e4) / 1e4;
    const proposal = (value: number) => ({
      label: `Change ${handle.label}`,
      edit: (project: Parameters<ShapeHandle['edit']>[0]) => handle.edit(project, value),
    });
    followDrag({
      move: (event) => {
        const value = valueAt(event);
        this.proposals.show(proposal(value));
        this.chip.show(
          event.clientX - box.left,
          event.clientY - box.top,
          `${handle.label} ${shownNumber(handle.value, 3)} → ${shownNumber(value, 3)} m (${signedNumber(value - handle.value, 3)})`,
        );
      },
      end: (event) => {
        this.chip.hide();
        const value = valueAt(event);
        if (value === handle.value) this.proposals.drop();
        else this.proposals.take(proposal(value));
      },
      cancel: () => {
        this.chip.hide();
        this.proposals.drop();
      },
    });
  }
}
