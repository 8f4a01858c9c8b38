import { computed, inject, Injectable } from '@angular/core';
import { channelName } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownNumber, signedNumber } from '../../../ui/amount';
import { Poser } from '../../posing/poser';
import { Stage } from '../../stage/stage';
import { alongAxis, rayThrough, toScreen, type Eye } from '../grip-math';
import { amountFor, onEqualVolume, squashLine, type SquashLine } from '../squash-line';
import { ViewDraggable, type At, type Drawn, type ViewDrag } from './draggable';
import { circleAt, lineThrough } from './paths';

/** Shares of the height between which the line of equal volume is drawn, and its ticks. */
const SHARES = Array.from({ length: 33 }, (_, i) => 0.4 + i * 0.05);
const TICKS = [0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5];
const TICK_PIXELS = 5;

/** With the tool Size: a disc on the line of equal volume, which a part that squashes can't leave while it is dragged. */
@Injectable({ providedIn: 'root' })
export class SquashGrip extends ViewDraggable<SquashLine> {
  readonly cursor = 'ns-resize';
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);

  private readonly squash = computed((): SquashLine | null => {
    const { parts, tool } = this.studio.bench();
    const now = this.stage.now();
    const part = parts.at(-1);
    if (!now || part === undefined || tool !== 'size' || this.stage.playing() || this.studio.readOnly())
      return null;
    const project = this.stage.shown();
    return project && squashLine(project, now, part);
  });

  draw(eye: Eye): readonly Drawn<SquashLine>[] {
    const squash = this.squash();
    if (!squash) return [];
    const aside = across(eye, squash);
    const disc = toScreen(eye, onEqualVolume(squash, 1 + amountFor(1 + squash.amount), aside));
    if (!disc) return [];
    const { contact, axis, height, radius } = squash;
    const seen = (places: readonly Vector3[]) => places.flatMap((place) => toScreen(eye, place) ?? []);
    const corner = (way: number, up: number) =>
      contact
        .clone()
        .addScaledVector(aside, way * radius)
        .addScaledVector(axis, up * height);
    const unsquashed = seen([corner(-1, 0), corner(1, 0), corner(1, 1), corner(-1, 1)]);
    const line = seen(SHARES.map((share) => onEqualVolume(squash, share, aside)));
    const ticks = seen(TICKS.map((share) => onEqualVolume(squash, share, aside)));
    const hint = 'Drag along the line of equal volume: the part grows as wide as it gets flat';
    return [
      {
        tone: 'select',
        marks: [
          { path: `${lineThrough(unsquashed)}z`, look: 'ghost' },
          { path: lineThrough(line), look: 'thin' },
          {
            path: ticks.map(({ x, y }) => `M${x - TICK_PIXELS} ${y}h${2 * TICK_PIXELS}`).join(''),
            look: 'thin',
          },
        ],
      },
      {
        tone: 'select',
        marks: [{ path: circleAt(disc, 8), look: 'hollow' }],
        found: { target: squash, name: 'squash', hint, line: [disc], within: 10 },
      },
    ];
  }

  begin(eye: Eye, down: At, squash: SquashLine): ViewDrag {
    const side = squash.contact.clone().addScaledVector(across(eye, squash), squash.radius);
    const shareAt = ({ x, y }: At) => alongAxis(rayThrough(eye, x, y), side, squash.axis) / squash.height;
    const grabbed = 1 + squash.amount - shareAt(down);
    const channel = channelName(squash.part, 'squash');
    const valueAt = (at: At) => Math.round(amountFor(shareAt(at) + grabbed) * 1000) / 1000;
    return {
      move: (at) => {
        const value = valueAt(at);
        this.poser.show([{ channel, value }]);
        const percent = `${signedNumber(value * 100, 0)} %`;
        return `height ${percent} · squash ${shownNumber(squash.amount, 3)} → ${shownNumber(value, 3)}`;
      },
      end: (at) => {
        this.poser.cancel();
        this.poser.take('Squash', [{ channel, value: valueAt(at) }]);
      },
      cancel: () => this.poser.cancel(),
    };
  }
}

/** Across the squash axis, to the right of the picture. */
function across(eye: Eye, { axis }: SquashLine): Vector3 {
  const right = new Vector3().setFromMatrixColumn(eye.camera.matrixWorld, 0);
  const aside = right.addScaledVector(axis, -right.dot(axis));
  return aside.lengthSq() > 1e-6 ? aside.normalize() : new Vector3(1, 0, 0);
}
