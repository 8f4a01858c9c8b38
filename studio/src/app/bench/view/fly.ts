import { computed, Injectable, inject } from '@angular/core';
import { Vector3 } from 'three';
import { Studio } from '../../state/studio';
import { followDrag } from '../../ui/follow-drag';
import { Poser, type ChannelValue } from '../posing/poser';
import { Stage } from '../stage/stage';
import { moved, readPose, turned, type PartPose } from './part-pose';
import { ShotLook } from './shot-look';

/** Degrees that the camera turns for a pixel of a drag, and the share of the focus distance it goes on for a notch of the wheel. */
const DEGREES = 0.12;
const NOTCH = 0.05;
/** Notches of the wheel within this time, in milliseconds, are one step of undo. */
const REST = 300;

/**
 * Flying the camera that is looked through: a drag looks about, with Shift or the middle button it shifts the camera, the wheel goes on and
 * back. What it comes to is posed like anything else: loose, or as keys while Capture is on.
 */
@Injectable({ providedIn: 'root' })
export class Fly {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly look = inject(ShotLook);
  /** Where the camera stood when the wheel began to turn, and how far it has gone on. */
  private wheel: { readonly pose: PartPose; metres: number; timer: ReturnType<typeof setTimeout> } | null =
    null;

  readonly isOn = computed(
    () =>
      this.studio.bench().fly &&
      this.look.part() !== null &&
      !this.studio.readOnly() &&
      !this.stage.playing(),
  );

  drag(down: PointerEvent): void {
    const pose = this.pose();
    if (!pose || down.button === 2) return;
    down.preventDefault();
    const shifts = down.button === 1 || down.shiftKey;
    let values: readonly ChannelValue[] = [];
    followDrag({
      move: (event) => {
        const [x, y] = [event.clientX - down.clientX, event.clientY - down.clientY];
        values = shifts ? this.shifted(pose, x, y) : this.turnedBy(pose, x, y);
        this.poser.show(values);
      },
      end: () => (values.length > 0 ? this.poser.take(`Fly ${pose.part.name}`, values) : this.poser.cancel()),
      cancel: () => this.poser.cancel(),
    });
  }

  /** Goes on or back along the sight; once the wheel rests it is one step. */
  roll(event: WheelEvent): void {
    const pose = this.wheel?.pose ?? this.pose();
    if (!pose) return;
    event.preventDefault();
    event.stopPropagation();
    if (this.wheel) clearTimeout(this.wheel.timer);
    const step = -Math.sign(event.deltaY) * NOTCH * this.reach();
    const metres = (this.wheel?.metres ?? 0) + step;
    const values = moved(pose, this.axis(2).multiplyScalar(-metres));
    this.poser.show(values);
    const timer = setTimeout(() => {
      this.wheel = null;
      this.poser.take(`Fly ${pose.part.name}`, values);
    }, REST);
    this.wheel = { pose, metres, timer };
  }

  private pose(): PartPose | null {
    const now = this.stage.now();
    const part = this.look.part();
    return now && part ? readPose(now, part.id) : null;
  }

  /** So far, in metres, is what matters: a step of the wheel goes by it, and a drag shifts things there with the pointer. */
  private reach(): number {
    const part = this.look.part();
    const focus = part && this.stage.valueOf(`${part.id}/camera.focusDistance`);
    return Math.max(0.1, focus ?? 5);
  }

  /** A direction of the camera in the world: 0 right, 1 up, 2 back. */
  private axis(n: number): Vector3 {
    return new Vector3().setFromMatrixColumn(this.look.camera.matrixWorld, n).normalize();
  }

  private shifted(pose: PartPose, x: number, y: number): readonly ChannelValue[] {
    const { camera } = this.look;
    const metres = (2 * Math.tan((camera.fov * Math.PI) / 360) * this.reach()) / this.look.size().height;
    const way = this.axis(0).multiplyScalar(-x * metres);
    return moved(pose, way.addScaledVector(this.axis(1), y * metres));
  }

  /** About the world's upright first, then about its own right: the horizon stays level. */
  private turnedBy(pose: PartPose, x: number, y: number): readonly ChannelValue[] {
    const handling = { point: null, view: this.look.camera.matrixWorld };
    const about = turned(pose, { ...handling, space: 'world', axis: 1, amount: -x * DEGREES });
    const tilted = turned(posedAt(pose, about), { ...handling, space: 'own', axis: 0, amount: -y * DEGREES });
    const values = new Map([...about, ...tilted].map((entry) => [entry.channel, entry]));
    return [...values.values()];
  }
}

/** A pose with some turns in place of its own. */
function posedAt(pose: PartPose, values: readonly ChannelValue[]): PartPose {
  const rotate = pose.rotate.map(
    (was, i) => values.find(({ channel }) => channel.endsWith(`rotate.${'xyz'.charAt(i)}`))?.value ?? was,
  );
  return { ...pose, rotate: rotate as unknown as PartPose['rotate'] };
}
