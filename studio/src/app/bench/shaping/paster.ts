import { Injectable, inject, signal } from '@angular/core';
import {
  greatestOf,
  leastOf,
  pasteKeys,
  pasteOntoParts,
  splitChannel,
  type CopiedKeys,
  type KeyRef,
  type PasteChange,
  type Project,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';

/** How copied keys are put down. */
export interface PasteChoice {
  /** Values multiplied by this; −1 negates them. */
  readonly times: number;
  /** The first key gets the value that its channel has at the playhead, the others go along. */
  readonly fromNow: boolean;
  /** Onto the chosen parts' channels of the same names instead of their own. */
  readonly ontoParts?: boolean;
}

/** The keys that were copied, and the ways to put them down at the playhead. */
@Injectable({ providedIn: 'root' })
export class Paster {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  readonly copied = signal<CopiedKeys | null>(null);

  /** The project with the copied keys put down, and where they are; null where nothing was copied. */
  pasted(
    project: Project,
    choice: PasteChoice,
  ): { readonly project: Project; readonly refs: readonly KeyRef[] } | null {
    const copied = this.copied();
    if (!copied) return null;
    const { channels, parts } = this.studio.bench();
    const frame = this.stage.frame();
    const change: PasteChange = {
      times: choice.times,
      ...(choice.fromNow ? { startAt: (channel: string) => this.stage.valueOf(channel) } : {}),
    };
    if (choice.ontoParts) {
      const onto = parts.length > 0 ? parts : channels.map((channel) => splitChannel(channel).part);
      return pasteOntoParts(project, copied, frame, [...new Set(onto)], change);
    }
    const targets = copied.curves.length === 1 && channels.length > 0 ? channels : undefined;
    return pasteKeys(project, copied, frame, targets, change);
  }

  /** Where keys were put, in words. */
  private placesOf(refs: readonly KeyRef[]): string {
    const project = this.studio.project();
    const channels = [...new Set(refs.map(({ channel }) => channel))];
    const [first] = channels;
    const where =
      project && first !== undefined && channels.length === 1
        ? channelLabel(project, first).full
        : `${channels.length} channels`;
    const frames = refs.map(({ frame }) => frame);
    const [from, to] = [leastOf(frames), greatestOf(frames)].map(shownFrame);
    const many = refs.length === 1 ? 'One key' : `${refs.length} keys`;
    return `${many} put on ${where}, f ${from}${from === to ? '' : ` to ${to}`}`;
  }

  /** Pastes at the playhead: onto the channels the keys come from, or one copied channel onto the chosen ones. */
  paste(choice: PasteChoice): void {
    let refs: readonly KeyRef[] = [];
    this.studio.edit('Paste keys', (project) => {
      const pasted = this.pasted(project, choice);
      refs = pasted?.refs ?? [];
      return pasted?.project ?? project;
    });
    if (refs.length > 0) {
      this.studio.pick({ keys: refs, handles: [] });
      this.notices.tell(this.placesOf(refs));
    } else this.notices.warn('What the keys would go to is locked, or is not there. Nothing was changed.');
  }
}
