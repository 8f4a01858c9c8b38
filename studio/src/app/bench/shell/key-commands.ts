import { Injectable, inject } from '@angular/core';
import { copyKeys, curveOf, deleteKeys, moveKeys, type KeyRef } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import type { LooseEdit } from '../../state/document';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { ChartModel } from '../plot/chart-model';
import { Poser } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { Proposals } from '../stage/proposals';
import { Paster } from '../shaping/paster';
import { ShapeSheets } from '../shaping/shape-sheets';
import { Stage } from '../stage/stage';
import { TimeTools } from '../timing/time-tools';

/** Commands on keys: keying, copying, nudging, choosing. */
@Injectable({ providedIn: 'root' })
export class KeyCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly chart = inject(ChartModel);
  private readonly notices = inject(Notices);
  private readonly time = inject(TimeTools);
  private readonly proposals = inject(Proposals);
  private readonly picker = inject(PartPicker);
  private readonly paster = inject(Paster);
  private readonly sheets = inject(ShapeSheets);
  private readonly editable = () => !this.studio.readOnly();
  private readonly hasCopied = () => this.editable() && this.paster.copied() !== null;
  private readonly hasKeys = () => this.editable() && this.studio.bench().keys.length > 0;

  list(): readonly Command[] {
    return [...this.keying(), ...this.choosing()];
  }

  private keying(): Command[] {
    const nudge = (frames: number, value: number) => () => this.nudge(frames, value);
    const loose = {
      group: 'Keys',
      meant: () => (this.studio.loose().length > 0 ? this.studio.loose() : null),
      when: this.editable,
    } as const;
    return [
      {
        id: 'key.here',
        label: 'Key here',
        group: 'Keys',
        shortcuts: ['D'],
        when: this.editable,
        run: () => this.poser.keyHere(),
      },
      onItem<readonly LooseEdit[]>({
        ...loose,
        id: 'key.loose',
        label: 'Key all loose edits',
        shortcuts: ['Shift+D'],
        run: (edits) => this.poser.keyLoose(edits),
      }),
      onItem<readonly LooseEdit[]>({
        ...loose,
        id: 'key.loose-here',
        label: 'Key all loose edits at the playhead',
        run: (edits) => this.poser.keyLoose(edits, this.stage.frame()),
      }),
      onItem<readonly LooseEdit[]>({
        ...loose,
        id: 'key.discard-loose',
        label: 'Discard all loose edits',
        run: (edits) => this.poser.discardLoose(edits),
      }),
      {
        id: 'key.delete',
        label: 'Delete the chosen keys',
        group: 'Keys',
        shortcuts: ['Delete', 'Backspace'],
        when: this.hasKeys,
        run: () => this.deleteKeys('Delete'),
      },
      {
        id: 'key.copy',
        label: 'Copy the chosen keys',
        group: 'Keys',
        shortcuts: ['Ctrl+C'],
        when: () => this.studio.bench().keys.length > 0,
        run: () => this.copy(),
      },
      {
        id: 'key.cut',
        label: 'Cut the chosen keys',
        group: 'Keys',
        shortcuts: ['Ctrl+X'],
        when: this.hasKeys,
        run: () => this.cut(),
      },
      {
        id: 'key.paste',
        label: 'Paste keys at the playhead',
        group: 'Keys',
        shortcuts: ['Ctrl+V'],
        when: this.hasCopied,
        run: () => this.paster.paste({ times: 1, fromNow: false }),
      },
      {
        id: 'key.paste-now',
        label: 'Paste keys shifted to the value now',
        group: 'Keys',
        when: this.hasCopied,
        run: () => this.paster.paste({ times: 1, fromNow: true }),
      },
      {
        id: 'key.paste-negated',
        label: 'Paste keys negated',
        group: 'Keys',
        when: this.hasCopied,
        run: () => this.paster.paste({ times: -1, fromNow: false }),
      },
      {
        id: 'key.paste-as',
        label: 'Paste keys as…: scaled, shifted, onto other channels or parts',
        group: 'Keys',
        when: this.hasCopied,
        run: () => this.sheets.pasteAs(),
      },
      {
        id: 'key.later',
        label: 'Chosen keys one frame later',
        group: 'Keys',
        shortcuts: ['Ctrl+→'],
        when: this.hasKeys,
        run: nudge(1, 0),
      },
      {
        id: 'key.earlier',
        label: 'Chosen keys one frame earlier',
        group: 'Keys',
        shortcuts: ['Ctrl+←'],
        when: this.hasKeys,
        run: nudge(-1, 0),
      },
      {
        id: 'key.higher',
        label: 'Chosen keys a step higher',
        group: 'Keys',
        shortcuts: ['Ctrl+↑'],
        when: this.hasKeys,
        run: nudge(0, 1),
      },
      {
        id: 'key.lower',
        label: 'Chosen keys a step lower',
        group: 'Keys',
        shortcuts: ['Ctrl+↓'],
        when: this.hasKeys,
        run: nudge(0, -1),
      },
    ];
  }

  private choosing(): Command[] {
    return [
      {
        id: 'select.all',
        label: 'Choose all keys of the drawn channels',
        group: 'Select',
        shortcuts: ['Ctrl+A'],
        run: () => this.chooseAll(),
      },
      {
        id: 'select.here',
        label: 'Choose the keys at the playhead',
        group: 'Select',
        shortcuts: ['K'],
        run: () => this.chooseHere(),
      },
      {
        id: 'select.none',
        label: 'Choose nothing',
        group: 'Select',
        shortcuts: ['Esc'],
        run: () => this.chooseNone(),
      },
    ];
  }

  /** Asks for no part any more, gives up an edit of time that is shown; else chooses nothing. */
  private chooseNone(): void {
    if (this.picker.question()) {
      this.picker.leave();
      return;
    }
    if (this.proposals.drop()) return;
    if (this.time.armed()) this.time.hide();
    else this.studio.pick({ keys: [], handles: [], channels: [], parts: [] });
  }

  private chooseAll(): void {
    const project = this.studio.project();
    if (!project) return;
    const keys = this.chart
      .plotted()
      .flatMap((channel) => (curveOf(project, channel)?.keys ?? []).map(({ frame }) => ({ channel, frame })));
    this.studio.pick({ keys, handles: [] });
    this.studio.set({ sheet: 'key' });
  }

  private chooseHere(): void {
    const project = this.studio.project();
    if (!project) return;
    const frame = this.stage.frame();
    const keys = this.chart
      .plotted()
      .flatMap((channel): KeyRef[] =>
        curveOf(project, channel)?.keys.some((key) => key.frame === frame) ? [{ channel, frame }] : [],
      );
    this.studio.pick({ keys, handles: [] });
    this.studio.set({ sheet: 'key' });
  }

  private deleteKeys(word: 'Delete' | 'Cut'): void {
    const { keys } = this.studio.bench();
    const locked = keys.some((key) => curveOf(this.studio.project()!, key.channel)?.locked);
    this.studio.edit(`${word} ${keys.length === 1 ? 'a key' : `${keys.length} keys`}`, (project) =>
      deleteKeys(project, keys),
    );
    if (locked) this.notices.tell('Keys of locked channels stay; unlock them in their rows first');
  }

  private copy(): void {
    const project = this.studio.project();
    const { keys } = this.studio.bench();
    if (!project) return;
    this.paster.copied.set(copyKeys(project, keys));
    this.notices.tell(
      `${keys.length === 1 ? 'One key' : `${keys.length} keys`} copied; paste puts the first one at the playhead`,
    );
  }

  private cut(): void {
    this.copy();
    this.deleteKeys('Cut');
  }

  /** A frame in time, or the last shown digit but one in value. */
  private nudge(frames: number, steps: number): void {
    const { keys } = this.studio.bench();
    const strip = this.chart
      .plot()
      .strips.find((each) => keys.some((key) => each.channels.includes(key.channel)));
    const value = steps * (strip?.unit === '°' ? 1 : 0.01);
    this.studio.edit('Nudge keys', (project) => moveKeys(project, keys, { frames, value }));
  }
}
