import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { neighbourKeyFrame } from '../stage/key-time';
import { Stage } from '../stage/stage';

/** Commands of playing and of the playhead. */
@Injectable({ providedIn: 'root' })
export class PlayCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);

  list(): readonly Command[] {
    const step = (way: 1 | -1) => () =>
      this.stage.goTo(this.stage.frame() + way * this.studio.bench().frameStep);
    const longer = (by: 1 | -1) => () => {
      const frameStep = Math.max(1, Math.round(this.studio.bench().frameStep) + by);
      this.studio.set({ frameStep });
      this.notices.tell(`← and → go ${frameStep === 1 ? 'one frame' : `${frameStep} frames`}`);
    };
    const toKey = (way: 1 | -1) => () => {
      const project = this.studio.project();
      const frame = project && neighbourKeyFrame(project, this.studio.bench(), this.stage.frame(), way);
      if (frame !== null) this.stage.goTo(frame);
    };
    const toEnd = (end: 'start' | 'end') => () => this.stage.goTo(this.studio.project()?.range[end] ?? 0);
    return [
      {
        id: 'play.toggle',
        label: 'Play or stop',
        group: 'Play',
        shortcuts: ['Space'],
        run: () => this.stage.toggle(),
      },
      {
        id: 'play.next-frame',
        label: 'Next frame, or as many as the step',
        group: 'Play',
        shortcuts: ['→'],
        run: step(1),
      },
      {
        id: 'play.previous-frame',
        label: 'Previous frame, or as many as the step',
        group: 'Play',
        shortcuts: ['←'],
        run: step(-1),
      },
      {
        id: 'play.longer-step',
        label: 'The arrow keys go a frame farther',
        group: 'Play',
        shortcuts: [']'],
        run: longer(1),
      },
      {
        id: 'play.shorter-step',
        label: 'The arrow keys go a frame less far',
        group: 'Play',
        shortcuts: ['['],
        when: () => this.studio.bench().frameStep > 1,
        run: longer(-1),
      },
      { id: 'play.next-key', label: 'Next key', group: 'Play', shortcuts: ['Shift+→'], run: toKey(1) },
      {
        id: 'play.previous-key',
        label: 'Previous key',
        group: 'Play',
        shortcuts: ['Shift+←'],
        run: toKey(-1),
      },
      {
        id: 'play.first',
        label: 'Start of the range',
        group: 'Play',
        shortcuts: ['Home'],
        run: toEnd('start'),
      },
      { id: 'play.last', label: 'End of the range', group: 'Play', shortcuts: ['End'], run: toEnd('end') },
    ];
  }
}
