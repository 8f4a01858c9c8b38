import { computed, Injectable, inject } from '@angular/core';
import { Vector3 } from 'three';
import { Studio } from '../../state/studio';
import { ARROWS } from '../../ui/arrow-keys';
import { followDrag } from '../../ui/follow-drag';
import { Poser, type ChannelValue } from '../posing/poser';
import { Stage } from '../stage/stage';
import { moved, readPose, turned, type PartPose } from './part-pose';
import { ShotLook } from './shot-look';

/** Degrees that the camera turns for a pixel of a drag, and the share of the focus distance it goes on for a notch of the wheel. */
const DEGREES = 0.12;
const NOTCH = 0.05;
/** Notches of the wheel and presses of keys within this time, in milliseconds, are one step of undo. */
const REST = 300;
/** A press of an arrow key is a drag of so many pixels. */
const PRESS = 16;

/** Which way a key of pages flies: on or back. */
const PAGES: Readonly<Record<string, number>> = { PageUp: 1, PageDown: -1 };

/**
 * Flying the camera that is looked through: a drag looks about, with Shift or the middle button it shifts the camera, the wheel goes on and
 * back; so do the arrow keys, with Shift, and Page Up and Page Down. What it comes to is posed like anything else: loose, or as keys
 * while Capture is on.
 */
@Injectable({ providedIn: 'root' })
export class Fly {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly look = inject(ShotLook);
  /** Where the camera stood when wheel or keys began to fly it, how far it went since, and how many pixels a drag would have been that looks about as far. */
  private going: {
    readonly pose: PartPose;
    readonly way: Vector3;
    readonly about: readonly [number, number];
    readonly timer: ReturnType<typeof setTimeout>;
    readonly take: () => void;
  } | null = null;

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
        values = shifts ? moved(pose, this.aside(x, y)) : this.turnedBy(pose, x, y);
        this.poser.show(values);
      },
      end: () => (values.length > 0 ? this.poser.take(`Fly ${pose.part.name}`, values) : this.poser.cancel()),
      cancel: () => this.poser.cancel(),
    });
  }

  /** Goes on or back along the sight. */
  roll(event: WheelEvent): void {
    if (!this.isOn() || !this.go(this.ahead(-Math.sign(event.deltaY)))) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Flies by a key; other keys are left to the Bench, which finds what was flown before taken. */
  press(event: KeyboardEvent): void {
    if (!this.isOn()) return;
    const plain = !event.ctrlKey && !event.altKey && !event.metaKey;
    if (plain && this.fly(event)) {
      event.preventDefault();
      event.stopPropagation();
    } else if (event.key.length === 1) this.rest();
  }

  private fly(event: KeyboardEvent): boolean {
    const arrow = ARROWS[event.key];
    const page = PAGES[event.key];
    if (page !== undefined) return this.go(this.ahead(page));
    if (!arrow) return false;
    const [right, up] = arrow.map((way) => way * PRESS) as [number, number];
    // The camera goes where the key points: a drag that shifts it goes the other way, with what is seen.
    return event.shiftKey ? this.go(this.aside(-right, up)) : this.go(new Vector3(), [right, -up]);
  }

  /** Flies on for a step; once nothing more comes, all of it is one step of undo. False where there is no camera to fly. */
  private go(step: Vector3, [x, y]: readonly [number, number] = [0, 0]): boolean {
    const pose = this.going?.pose ?? this.pose();
    if (!pose) return false;
    if (this.going) clearTimeout(this.going.timer);
    const way = step.add(this.going?.way ?? new Vector3());
    const [wasX, wasY] = this.going?.about ?? [0, 0];
    const about = [wasX + x, wasY + y] as const;
    const values = [
      ...(way.lengthSq() > 0 ? moved(pose, way) : []),
      ...(about[0] !== 0 || about[1] !== 0 ? this.turnedBy(pose, ...about) : []),
    ];
    this.poser.show(values);
    const timer = setTimeout(() => this.rest(), REST);
    const take = () => this.poser.take(`Fly ${pose.part.name}`, values);
    this.going = { pose, way, about, timer, take };
    return true;
  }

  /** Takes what wheel and keys have flown. */
  private rest(): void {
    const { going } = this;
    if (!going) return;
    clearTimeout(going.timer);
    this.going = null;
    going.take();
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

  /** So far along the sight for a notch of the wheel, in the world. */
  private ahead(notches: number): Vector3 {
    return this.axis(2).multiplyScalar(-notches * NOTCH * this.reach());
  }

  /** So far aside for a drag of so many pixels, in the world: what is in focus goes with the pointer. */
  private aside(x: number, y: number): Vector3 {
    const { camera } = this.look;
    const metres = (2 * Math.tan((camera.fov * Math.PI) / 360) * this.reach()) / this.look.size().height;
    return this.axis(0)
      .multiplyScalar(-x * metres)
      .addScaledVector(this.axis(1), y * metres);
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
