import { Injectable, inject } from '@angular/core';
import type { Command } from '../commands/command';
import { Studio } from '../state/studio';
import { neighbourKeyFrame } from './key-time';
import { Stage } from './stage';

/** Commands of playing and of the playhead. */
@Injectable({ providedIn: 'root' })
export class PlayCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);

  list(): readonly Command[] {
    const step = (frames: number) => () => this.stage.goTo(this.stage.frame() + frames);
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
      { id: 'play.next-frame', label: 'Next frame', group: 'Play', shortcuts: ['→'], run: step(1) },
      { id: 'play.previous-frame', label: 'Previous frame', group: 'Play', shortcuts: ['←'], run: step(-1) },
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
