import { Injectable, Injector, inject } from '@angular/core';
import { insertKeys, setTreatment, weightCurve, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { followDrag, type Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { frameAt } from '../../plot/plot';
import { Snapper } from '../../plot/snapper';
import { LANE_DRAGGABLES, LaneBead, type LaneDraggable } from './draggable';
import { Lanes, type LaneShown } from './lanes';

/** What the pointer does in the lanes: a press chooses a lane; what lies in the chosen one is taken hold of. */
@Injectable({ providedIn: 'root' })
export class LaneHands {
  private readonly studio = inject(Studio);
  private readonly lanes = inject(Lanes);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);
  private readonly bead = inject(LaneBead);
  private readonly draggables: readonly LaneDraggable<unknown>[];

  constructor() {
    const injector = inject(Injector);
    this.draggables = LANE_DRAGGABLES.map((each) => injector.get(each));
  }

  /** What can be dragged at a place of a lane: in the chosen one, where its curve is not locked. */
  private hit(lane: LaneShown, x: number, y: number) {
    if (!lane.isChosen || this.lanes.locked()) return null;
    for (const each of this.draggables) {
      const target = each.hit(lane, x, y);
      if (target !== null)
        return { cursor: each.cursor, begin: (down: PointerEvent) => each.begin(lane, down, target) };
    }
    return null;
  }

  cursorAt(x: number, y: number): string {
    const lane = this.lanes.laneAt(y);
    if (!lane) return 'default';
    if (!lane.isChosen || this.lanes.locked()) return 'pointer';
    return this.hit(lane, x, y)?.cursor ?? 'crosshair';
  }

  press(down: PointerEvent, canvas: HTMLElement): void {
    const lane = this.lanes.laneAt(down.offsetY);
    if (!lane || down.button !== 0) return;
    down.preventDefault();
    canvas.focus();
    const found = this.hit(lane, down.offsetX, down.offsetY);
    this.lanes.choose(lane);
    if (found) follow(found.begin(down), { element: canvas, pointerId: down.pointerId });
    else this.studio.pick({ keys: [], handles: [] });
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

  /** Takes hold of a lane's bead in the list of lanes. */
  dragBead(down: PointerEvent, lane: LaneShown, list: HTMLElement): void {
    if (!this.lanes.curve() || down.button !== 0) return;
    down.preventDefault();
    this.lanes.choose(lane);
    follow(this.bead.begin(lane, list.getBoundingClientRect().top));
  }
}

function follow(drag: Drag | null, held?: Parameters<typeof followDrag>[1]): void {
  if (drag) followDrag(drag, held);
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
