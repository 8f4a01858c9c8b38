import { Injectable, inject } from '@angular/core';
import {
  insertKeys,
  mapKeyPlaces,
  setTreatment,
  weightCurve,
  type Edit,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame, shownNumber } from '../../../ui/amount';
import { followDrag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { NOTHING_SHOWN } from '../../plot/drag';
import { frameAt, xOf } from '../../plot/plot';
import { Snapper } from '../../plot/snapper';
import { Proposals } from '../../stage/proposals';
import { TreatmentTools } from '../treatment-tools';
import { weightAt, weightY } from './draw-lanes';
import { Lanes, type LaneShown } from './lanes';

const REACH = 8;

/** What the pointer does in the lanes: a press chooses a lane; in the chosen one the weight is dragged, by its keys or as a whole. */
@Injectable({ providedIn: 'root' })
export class LaneHands {
  private readonly studio = inject(Studio);
  private readonly lanes = inject(Lanes);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);
  private readonly proposals = inject(Proposals);
  private readonly tools = inject(TreatmentTools);

  cursorAt(x: number, y: number): string {
    const lane = this.lanes.laneAt(y);
    if (!lane) return 'default';
    if (!lane.isChosen || this.lanes.locked()) return 'pointer';
    if (this.keyAt(lane, x, y)) return 'grab';
    return this.isOnLevel(lane, y) ? 'ns-resize' : 'crosshair';
  }

  /** A key of the lane's weight under a place. */
  private keyAt(lane: LaneShown, x: number, y: number): KeyRef | null {
    const { weight } = lane.treatment;
    if (!lane.isChosen || typeof weight === 'number') return null;
    const plot = this.model.plot();
    const key = weight.keys.find(
      ({ frame, value }) => Math.hypot(xOf(plot, frame) - x, weightY(lane, value) - y) <= REACH,
    );
    return key ? { channel: lane.weight, frame: key.frame } : null;
  }

  /** Whether a place lies on the line of a weight that is one number. */
  private isOnLevel(lane: LaneShown, y: number): boolean {
    const { weight } = lane.treatment;
    return typeof weight === 'number' && Math.abs(weightY(lane, weight) - y) <= REACH;
  }

  press(down: PointerEvent, canvas: HTMLElement): void {
    const lane = this.lanes.laneAt(down.offsetY);
    if (!lane || down.button !== 0) return;
    down.preventDefault();
    canvas.focus();
    const key = this.keyAt(lane, down.offsetX, down.offsetY);
    const free = lane.isChosen && !this.lanes.locked();
    this.lanes.choose(lane);
    if (key && free) this.dragKeys(down, canvas, lane, key);
    else if (free && this.isOnLevel(lane, down.offsetY)) this.dragLevel(down, canvas, lane);
    else this.studio.pick({ keys: [], handles: [] });
  }

  private dragKeys(down: PointerEvent, canvas: HTMLElement, lane: LaneShown, grabbed: KeyRef): void {
    const { keys } = this.studio.bench();
    const isChosen = keys.some(({ channel, frame }) => channel === lane.weight && frame === grabbed.frame);
    const moving = isChosen ? keys.filter(({ channel }) => channel === lane.weight) : [grabbed];
    this.studio.pick({ keys: moving, handles: [] });
    const targets = this.snapper.targets(moving);
    this.follow(down, canvas, 'Move the weight', (event) => {
      const raw = frameAt(this.model.plot(), event.offsetX) - frameAt(this.model.plot(), down.offsetX);
      const frames = this.snapper.snap(grabbed.frame + raw, targets, event) - grabbed.frame;
      const rise = weightAt(lane, event.offsetY) - weightAt(lane, down.offsetY);
      return {
        edit: (now) =>
          mapKeyPlaces(now, moving, ({ frame, value }) => ({
            frame: frame + frames,
            value: Math.min(1, Math.max(0, value + rise)),
          })),
        text: `f ${shownFrame(grabbed.frame + frames)} · ${rise >= 0 ? '+' : '−'}${shownNumber(Math.abs(rise), 2)}`,
      };
    });
  }

  private dragLevel(down: PointerEvent, canvas: HTMLElement, lane: LaneShown): void {
    const { treatment, index } = lane;
    const channel = this.lanes.curve()!.channel;
    this.follow(down, canvas, 'Weight', (event) => {
      const weight = Math.min(1, Math.max(0, Math.round(weightAt(lane, event.offsetY) * 100) / 100));
      return {
        edit: (now) => setTreatment(now, channel, index, { ...treatment, weight }),
        text: `weight ${shownNumber(weight, 2)}`,
      };
    });
  }

  private follow(
    down: PointerEvent,
    canvas: HTMLElement,
    label: string,
    made: (event: PointerEvent) => { readonly edit: Edit; readonly text: string },
  ): void {
    followDrag(
      {
        move: (event) => {
          const { edit, text } = made(event);
          const chip = { x: event.offsetX, y: this.model.plot().height - 40, text };
          this.model.showDrag({ label, edit }, { ...NOTHING_SHOWN, chip });
        },
        end: () => this.model.keepDrag(),
        cancel: () => this.model.stopShowing(),
      },
      { element: canvas, pointerId: down.pointerId },
    );
  }

  /** A double click in a lane: a key of its weight there, which becomes a curve where it was a number. */
  addKey(event: MouseEvent): void {
    const lane = this.lanes.laneAt(event.offsetY);
    const curve = this.lanes.curve();
    if (!lane || !curve || this.lanes.locked() || lane.treatment.muted) return;
    const frame = this.snapper.snap(frameAt(this.model.plot(), event.offsetX), [], event);
    this.studio.edit('Key the weight', (project) => keyedWeight(project, curve.channel, lane, frame));
    this.studio.pick({ keys: [{ channel: lane.weight, frame }], handles: [] });
    this.lanes.choose(lane);
  }

  /** Drags a lane's bead up or down: the lanes stand in the new order meanwhile, and the plot follows. */
  dragBead(down: PointerEvent, lane: LaneShown, list: HTMLElement): void {
    const curve = this.lanes.curve();
    if (!curve || down.button !== 0) return;
    down.preventDefault();
    this.lanes.choose(lane);
    if (this.lanes.locked()) return;
    const top = list.getBoundingClientRect().top;
    const places = this.lanes.lanes();
    const from = lane.index;
    followDrag({
      move: (event) => {
        const y = event.clientY - top;
        const over = places.findIndex((each) => y < each.top + each.height);
        const to = over < 0 ? places.length - 1 : Math.max(0, over);
        if (to === from) this.proposals.drop();
        else this.proposals.show(this.tools.moving(curve.channel, from, to));
      },
      end: () => this.proposals.take(),
      cancel: () => this.proposals.drop(),
    });
  }
}

/** A project with a key on a lane's weight at a frame; a weight that is a number becomes a curve over the range first. */
function keyedWeight(project: Project, channel: string, lane: LaneShown, frame: number): Project {
  const { treatment, index, weight } = lane;
  const { start, end } = project.range;
  const curved =
    typeof treatment.weight === 'number'
      ? setTreatment(project, channel, index, {
          ...treatment,
          weight: weightCurve(treatment.weight, Math.min(start, frame - 1), Math.max(end, frame + 1)),
        })
      : project;
  return insertKeys(curved, [{ channel: weight, frame }]);
}
