import { Injectable, inject } from '@angular/core';
import type { Marker, Sound } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Stage } from '../stage/stage';
import { RulerTools } from './ruler-tools';

/** Commands of the ruler: markers, and stepping from one to the next. */
@Injectable({ providedIn: 'root' })
export class RulerCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly tools = inject(RulerTools);

  list(): readonly Command[] {
    const step = (way: 1 | -1) => () => {
      const frame = this.tools.neighbour(this.stage.frame(), way);
      if (frame !== null) this.stage.goTo(frame);
    };
    const editable = () => !this.studio.readOnly();
    const { tools } = this;
    const hasMarkers = () => this.tools.markers().length > 0;
    return [
      {
        id: 'ruler.marker',
        label: 'Add a marker or note at the playhead',
        group: 'Time',
        shortcuts: ['N'],
        when: editable,
        run: () => tools.add(),
      },
      onItem<Marker>({
        id: 'marker.remove',
        label: 'Remove the picked marker',
        group: 'Time',
        meant: () => tools.pickedMarker(),
        when: editable,
        run: (marker) => tools.remove(marker),
      }),
      onItem<Marker>({
        id: 'marker.go',
        label: 'Go to the picked marker',
        group: 'Play',
        meant: () => tools.pickedMarker(),
        run: (marker) => this.stage.goTo(marker.frame),
      }),
      onItem<Marker>({
        id: 'marker.span',
        label: 'The picked marker is a span, or one frame',
        group: 'Time',
        meant: () => tools.pickedMarker(),
        when: editable,
        on: (marker) => marker.end !== null,
        run: (marker) => tools.toggleSpan(marker),
      }),
      onItem<Sound>({
        id: 'sound.heard',
        label: 'The picked sound is heard, or not',
        group: 'Play',
        meant: () => tools.pickedSound(),
        when: editable,
        on: (sound) => !sound.muted,
        run: (sound) => tools.changeSound(sound, { muted: !sound.muted }),
      }),
      onItem<Sound>({
        id: 'sound.remove',
        label: 'Take the picked sound out of the project',
        group: 'Time',
        meant: () => tools.pickedSound(),
        when: editable,
        run: (sound) => tools.removeSound(sound),
      }),
      {
        id: 'ruler.next',
        label: 'Next marker',
        group: 'Play',
        shortcuts: ['.'],
        when: hasMarkers,
        run: step(1),
      },
      {
        id: 'ruler.previous',
        label: 'Previous marker',
        group: 'Play',
        shortcuts: [','],
        when: hasMarkers,
        run: step(-1),
      },
    ];
  }
}
