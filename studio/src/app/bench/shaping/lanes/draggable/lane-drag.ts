import { inject, Injectable } from '@angular/core';
import type { Edit } from '@kaizen/core';
import type { Drag } from '../../../../ui/follow-drag';
import { ChartModel } from '../../../plot/chart-model';
import { NOTHING_SHOWN } from '../../../plot/drag';

/** A drag in a lane: what it makes is shown in the Chart meanwhile, with a chip beside the pointer. */
@Injectable({ providedIn: 'root' })
export class LaneDrag {
  private readonly model = inject(ChartModel);

  of(label: string, made: (event: PointerEvent) => { readonly edit: Edit; readonly text: string }): Drag {
    return {
      move: (event) => {
        const { edit, text } = made(event);
        const chip = { x: event.offsetX, y: this.model.plot().height - 40, text };
        this.model.showDrag({ label, edit }, { ...NOTHING_SHOWN, chip });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}
