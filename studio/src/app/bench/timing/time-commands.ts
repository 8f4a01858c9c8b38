import { Injectable, inject } from '@angular/core';
import type { TimeKnot } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { KeyTools } from './key-tools';
import type { TimeToolId } from './time-plans';
import { AT_ONCE, TimeTools } from './time-tools';

/** Commands of time: edits that are shown by a first press and done by a second, Stakes, waits, loops, selections. */
@Injectable({ providedIn: 'root' })
export class TimeCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(TimeTools);
  private readonly keys = inject(KeyTools);
  private readonly editable = () => !this.studio.readOnly();

  list(): readonly Command[] {
    return [...this.edits(), ...this.stakes(), ...this.timing(), ...this.choosing()];
  }

  private edits(): Command[] {
    const edit = (id: string, tool: TimeToolId, label: string, shortcut: string): Command => ({
      id,
      label,
      group: 'Time',
      shortcuts: [shortcut],
      when: this.editable,
      run: (item) => (item === AT_ONCE ? this.tools.run(tool) : this.tools.press(tool)),
    });
    return [
      edit('time.push-after', 'push-after', 'Push everything after the playhead', 'P'),
      edit('time.push-before', 'push-before', 'Push everything before the playhead', 'Shift+P'),
      edit('time.open-gap', 'open-gap', 'Open a gap at the playhead', 'J'),
      edit('time.close-gap', 'close-gap', 'Close a gap at the playhead', 'Shift+J'),
      edit('time.reverse', 'reverse', 'Reverse time', 'R'),
      edit('time.mirror', 'mirror', 'Mirror values', 'Shift+R'),
    ];
  }

  private stakes(): Command[] {
    const pending = () => this.tools.pending() !== null;
    return [
      {
        id: 'time.stake',
        label: 'Set Stakes: at the ends of the chosen keys, else at the playhead',
        group: 'Time',
        shortcuts: ['Shift+T'],
        when: this.editable,
        run: () => this.tools.toggleStake(),
      },
      onItem<TimeKnot>({
        id: 'time.stake-remove',
        label: 'Take the last Stake away',
        group: 'Time',
        meant: () => this.tools.stakes().at(-1) ?? null,
        run: (stake) => this.tools.removeStake(stake),
      }),
      {
        id: 'time.apply',
        label: 'Apply the Stakes, or the edit of time that is shown',
        group: 'Time',
        shortcuts: ['Shift+S'],
        when: () => this.editable() && pending(),
        run: () => this.tools.apply(),
      },
      {
        id: 'time.discard',
        label: 'Discard the Stakes, or the edit of time that is shown',
        group: 'Time',
        shortcuts: ['Shift+Esc'],
        when: () => pending() || this.tools.stakes().length > 0,
        run: () => this.tools.discard(),
      },
    ];
  }

  private timing(): Command[] {
    return [
      {
        id: 'key.hold-still',
        label: 'Hold still from this key to the next',
        group: 'Time',
        shortcuts: ['H'],
        when: this.editable,
        run: () => this.keys.holdStill(),
      },
      {
        id: 'key.wait',
        label: 'Leave a copy as a wait',
        group: 'Time',
        shortcuts: ['W'],
        when: this.editable,
        run: () => this.keys.wait(),
      },
      {
        id: 'key.every',
        label: 'A key every so many frames on the chosen channels: the step of the arrow keys',
        group: 'Time',
        when: this.editable,
        run: () => this.keys.keyEvery(),
      },
      {
        id: 'key.whole-frames',
        label: 'Keys between frames to whole frames',
        group: 'Time',
        shortcuts: ['Shift+F'],
        when: this.editable,
        run: () => this.keys.wholeFrames(),
      },
      {
        id: 'time.close-loop',
        label: 'Close the loop at the range’s end',
        group: 'Time',
        when: this.editable,
        run: () => this.keys.closeLoop(),
      },
      {
        id: 'time.trim-range',
        label: 'Trim the range to the keys',
        group: 'Time',
        when: this.editable,
        run: () => this.keys.trimRange(),
      },
    ];
  }

  private choosing(): Command[] {
    const choose = (
      id: string,
      which: Parameters<KeyTools['choose']>[0],
      label: string,
      shortcut: string,
    ): Command => ({
      id,
      label,
      group: 'Select',
      shortcuts: [shortcut],
      run: () => this.keys.choose(which),
    });
    return [
      choose('select.but-first', 'but-first', 'Choose all keys but the first pose’s', 'B'),
      choose('select.after', 'after', 'Choose all keys after the playhead', 'A'),
      choose('select.before', 'before', 'Choose all keys before the playhead', 'Shift+A'),
      choose('select.pose', 'pose', 'Choose this pose everywhere', 'Shift+K'),
    ];
  }
}
