import { inject, Injectable } from '@angular/core';
import type { Drag } from '../../../../ui/follow-drag';
import { Proposals } from '../../../stage/proposals';
import { TreatmentTools } from '../../treatment-tools';
import { Lanes, type LaneShown } from '../lanes';

/** The bead of a lane in the list: dragged up or down, the lanes stand in the new order meanwhile, and the plot follows. */
@Injectable({ providedIn: 'root' })
export class LaneBead {
  private readonly lanes = inject(Lanes);
  private readonly proposals = inject(Proposals);
  private readonly tools = inject(TreatmentTools);

  /** `top` is where the list of lanes begins in the window, in pixels. */
  begin(lane: LaneShown, top: number): Drag | null {
    const curve = this.lanes.curve();
    if (!curve || this.lanes.locked()) return null;
    const places = this.lanes.lanes();
    const from = lane.index;
    return {
      move: (event) => {
        const y = event.clientY - top;
        const over = places.findIndex((each) => y < each.top + each.height);
        const to = over < 0 ? places.length - 1 : Math.max(0, over);
        if (to === from) this.proposals.drop();
        else this.proposals.show(this.tools.moving(curve.channel, from, to));
      },
      end: () => this.proposals.take(),
      cancel: () => this.proposals.drop(),
    };
  }
}
