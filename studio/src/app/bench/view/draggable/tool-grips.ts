import { computed, inject, Injectable } from '@angular/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownNumber, signedNumber } from '../../../ui/amount';
import { Poser, type ChannelValue } from '../../posing/poser';
import { AXIS_LETTERS, TOOL_LABELS } from '../../stage/words';
import { AmountStrip } from '../amount-strip';
import {
  alongAxis,
  angleAbout,
  circleAbout,
  metresPerPixel,
  onPlane,
  rayThrough,
  toScreen,
  type Eye,
} from '../grip-math';
import { HandledParts } from '../handled-parts';
import { axesOf, moved, sized, turned, type PartPose } from '../part-pose';
import { ViewDraggable, type At, type Drawn, type ViewDrag } from './draggable';
import { circleAt, lineThrough, squareAt } from './paths';

const ARM_PIXELS = 84;

/** An axis under the tool in hand, or null: all of them at once. */
type Axis = number | null;

/** What parts become where the pointer is, and the words for it. */
type Measure = (at: At) => { readonly values: readonly ChannelValue[]; readonly text: string };

/** The grips of the move, turn and size tools over the chosen part: an arm or a ring an axis, its letter on a badge. */
@Injectable({ providedIn: 'root' })
export class ToolGrips extends ViewDraggable<Axis> {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly handled = inject(HandledParts);
  private readonly poser = inject(Poser);
  private readonly strip = inject(AmountStrip);
  private readonly tool = computed(() => this.studio.bench().tool);
  /** The part chosen last: the grips stand on it. */
  private readonly pose = computed(() => this.handled.gripped().at(-1) ?? null);
  private readonly origin = computed(() => this.handled.point() ?? this.pose()?.pivot ?? null);

  draw(eye: Eye): readonly Drawn<Axis>[] {
    const pose = this.pose();
    const origin = this.origin();
    const middle = origin && toScreen(eye, origin);
    if (!pose || !middle) return [];
    const arm = metresPerPixel(eye, origin) * ARM_PIXELS;
    const axes = axesOf(pose, this.handled.space(), eye.camera.matrixWorld);
    const grips = axes.flatMap((axis, i) => this.drawnAxis(eye, origin, axis, arm, i));
    return [...grips, this.drawnMiddle(middle)];
  }

  private drawnAxis(
    eye: Eye,
    origin: Vector3,
    axis: Vector3,
    arm: number,
    i: number,
  ): readonly Drawn<Axis>[] {
    const turns = this.tool() === 'turn';
    const places = turns
      ? circleAbout(origin, axis, arm)
      : [origin, origin.clone().addScaledVector(axis, arm)];
    const line = places.flatMap((place) => toScreen(eye, place) ?? []);
    const badge = turns ? line[Math.floor(line.length / 8)] : line.at(-1);
    if (!badge || line.length < 2) return [];
    const text = AXIS_LETTERS[i]!;
    const way = turns ? 'about' : 'along';
    const hint = `Drag to ${TOOL_LABELS[this.tool()].toLowerCase()} ${way} ${text}, press to type the amount`;
    return [
      {
        tone: text.toLowerCase() as 'x' | 'y' | 'z',
        marks: [
          { path: lineThrough(line), look: 'line' },
          { path: squareAt(badge, 8), look: 'solid' },
        ],
        letter: { x: badge.x, y: badge.y + 4, text },
        found: { target: i, name: text, hint, line, within: 6 },
      },
    ];
  }

  /** The middle takes hold of all axes at once; with the tool Turn it only shows where they meet. */
  private drawnMiddle(at: At): Drawn<Axis> {
    if (this.tool() === 'turn') return { tone: 'ink', marks: [{ path: circleAt(at, 3), look: 'solid' }] };
    const hint = this.tool() === 'size' ? 'Drag to size the whole' : 'Drag to move across the view';
    return {
      tone: 'ink',
      marks: [{ path: squareAt(at, 6), look: 'hollow' }],
      found: { target: null, name: 'all', hint, line: [at], within: 8 },
    };
  }

  /** The middle lies on the arms, and is meant where it is near. */
  override hit(eye: Eye, at: At) {
    const all = this.draw(eye).find(({ found }) => found?.target === null)?.found;
    const [middle] = all?.line ?? [];
    if (all && middle && Math.hypot(middle.x - at.x, middle.y - at.y) <= all.within) return all;
    return super.hit(eye, at);
  }

  begin(eye: Eye, down: At, axis: Axis): ViewDrag | null {
    const pose = this.pose();
    const origin = this.origin();
    if (!pose || !origin) return null;
    const measure = this.measure(eye, origin.clone(), pose, axis, down);
    let values: readonly ChannelValue[] = [];
    return {
      move: (at) => {
        const shown = measure(at);
        values = shown.values;
        this.poser.show(values);
        return shown.text;
      },
      end: () => {
        if (values.length > 0) this.poser.take(this.label(pose, axis), values);
        else this.poser.cancel();
        if (values.length === 0 && axis !== null) this.strip.begin(axis);
      },
      cancel: () => this.poser.cancel(),
    };
  }

  private label(pose: PartPose, axis: Axis): string {
    const word = TOOL_LABELS[this.tool()];
    const many = this.handled.gripped().length;
    const whose = many > 1 ? `${many} parts` : pose.part.name;
    return `${word} ${whose}${axis === null ? '' : ` ${AXIS_LETTERS[axis]}`}`;
  }

  /** From the pointer's place to channel values, and the words beside it. The parts are taken as they stood at the press. */
  private measure(eye: Eye, origin: Vector3, pose: PartPose, axis: Axis, down: At): Measure {
    const view = eye.camera.matrixWorld.clone();
    const space = this.handled.space();
    const direction = axis === null ? null : axesOf(pose, space, view)[axis]!;
    const letter = axis === null ? '' : ` ${AXIS_LETTERS[axis]}`;
    const first = rayThrough(eye, down.x, down.y);
    const poses = this.handled.gripped();
    const by = { space, axis, point: this.handled.point(), view };
    const arm = metresPerPixel(eye, origin) * ARM_PIXELS;
    const wayTo = (at: At, along: Vector3) =>
      alongAxis(rayThrough(eye, at.x, at.y), origin, along) - alongAxis(first, origin, along);
    switch (this.tool()) {
      case 'turn': {
        let total = 0;
        let last = spoke(eye, origin, direction!, down);
        return (at) => {
          const next = spoke(eye, origin, direction!, at);
          total += angleAbout(direction!, last, next);
          last = next;
          const amount = this.stepped(total, 'angle');
          return {
            values: poses.flatMap((each) => turned(each, { ...by, amount })),
            text: `turn${letter} ${signedNumber(amount, 1)}°`,
          };
        };
      }
      case 'size':
        return (at) => {
          const along = direction ? wayTo(at, direction) / arm : (at.x - down.x + down.y - at.y) / ARM_PIXELS;
          const amount = Math.max(0.01, 1 + along);
          return {
            values: poses.flatMap((each) => sized(each, { ...by, amount })),
            text: `size${letter} times ${shownNumber(amount, 2)}`,
          };
        };
      case 'select':
      case 'move': {
        const facing = new Vector3().setFromMatrixPosition(view).sub(origin).normalize();
        const across = (at: At) => {
          const from = onPlane(first, origin, facing);
          const to = onPlane(rayThrough(eye, at.x, at.y), origin, facing);
          return from && to ? to.sub(from) : new Vector3();
        };
        return (at) => {
          const amount = direction && this.stepped(wayTo(at, direction), 'length');
          const shift = amount === null ? across(at) : direction!.clone().multiplyScalar(amount);
          return {
            values: poses.flatMap((each) => moved(each, shift)),
            text:
              amount === null
                ? `move ${shownNumber(shift.length(), 3)} m`
                : `move${letter} ${signedNumber(amount, 3)} m`,
          };
        };
      }
    }
  }

  private stepped(amount: number, kind: 'length' | 'angle'): number {
    const { on, [kind]: step } = this.studio.bench().steps;
    return on && step > 0 ? Math.round(amount / step) * step : amount;
  }
}

/** The direction from the origin to the pointer, across the axis; seen edge-on the pointer's place in the view serves. */
function spoke(eye: Eye, origin: Vector3, axis: Vector3, { x, y }: At): Vector3 {
  const ray = rayThrough(eye, x, y);
  const hit = onPlane(ray, origin, axis);
  if (hit) return hit.sub(origin);
  const nearest = ray.closestPointToPoint(origin, new Vector3()).sub(origin);
  return nearest.addScaledVector(ray.direction, -metresPerPixel(eye, origin) * ARM_PIXELS);
}
