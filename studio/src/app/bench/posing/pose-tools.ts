import { computed, Injectable, inject, signal } from '@angular/core';
import {
  channelName,
  curveOf,
  greatestOf,
  keepPose,
  leastOf,
  mirroredPose,
  partProperties,
  poseAt,
  poseOfKinds,
  removePose,
  renamePose,
  withDescendants,
  type Axis,
  type ChannelKind,
  type Pose,
  type PoseValues,
} from '@kaizen/core';
import { ALL_KINDS } from '../../state/bench';
import { Assets } from '../../state/assets';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser, type ChannelValue } from './poser';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';

/** Copying, mirroring and keeping poses. What is pasted goes the way of every changed value: to keys or to the tray. */
@Injectable({ providedIn: 'root' })
export class PoseTools {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly notices = inject(Notices);
  private readonly view = inject(ViewControl);
  readonly copied = signal<PoseValues | null>(null);
  /** Of a pose only these kinds are pasted. */
  readonly kinds = signal<readonly ChannelKind[]>(ALL_KINDS);
  /** The axis that the mirror stands on. */
  readonly across = signal<Axis>('x');
  readonly withChildren = signal(true);

  /** The chosen parts, with all below them where asked. */
  readonly parts = computed((): readonly string[] => {
    const project = this.studio.project();
    const { parts } = this.studio.bench();
    if (!project || !this.withChildren()) return parts;
    return [...new Set(parts.flatMap((id) => withDescendants(project.parts, id)))];
  });

  /** The pose as it shows, loose edits too; driven channels left out. */
  private shownPose(): PoseValues {
    const project = this.studio.project();
    const now = this.stage.now();
    const pose = new Map<string, number>();
    if (!project || !now) return pose;
    const wanted = new Set(this.parts());
    for (const part of project.parts) {
      if (!wanted.has(part.id)) continue;
      for (const { property } of partProperties(part)) {
        const channel = channelName(part.id, property);
        const slot = now.program.structure.slots.get(channel)!;
        if (!now.program.isDriven(slot)) pose.set(channel, now.out.channels[slot]!);
      }
    }
    return pose;
  }

  copy(): void {
    const pose = this.shownPose();
    if (pose.size === 0) {
      this.notices.tell('Pick the parts whose pose is to be copied first');
      return;
    }
    this.copied.set(pose);
    const parts = this.parts().length;
    this.notices.tell(
      `The pose of ${parts === 1 ? 'one part' : `${parts} parts`} at f ${shownFrame(this.stage.frame())} copied`,
    );
  }

  /** Pastes the copied pose, mirrored where asked. */
  paste(mirrored: boolean): void {
    const pose = this.copied();
    if (!pose) this.notices.tell('No pose is copied yet');
    else this.put(mirrored ? 'Paste the pose mirrored' : 'Paste the pose', pose, mirrored);
  }

  /** Brings the pose of another frame to the playhead. */
  bring(frame: number): void {
    const project = this.studio.project();
    const program = this.stage.program();
    if (!project || !program) return;
    const pose = poseAt(program, project, this.parts(), frame);
    if (pose.size === 0) this.notices.tell('Pick the parts that take the pose first');
    else this.put(`The pose of f ${shownFrame(frame)}`, pose, false);
  }

  /** Animated channels take the pose's value as a key even where they have it by chance; others only where it differs. */
  private put(label: string, pose: PoseValues, mirrored: boolean): void {
    const project = this.studio.project();
    if (!project || this.studio.readOnly()) return;
    const meant = poseOfKinds(mirrored ? mirroredPose(project, pose, this.across()) : pose, this.kinds());
    const values = [...meant].flatMap(([channel, value]): ChannelValue[] => {
      const shown = this.stage.valueOf(channel);
      if (shown === null) return [];
      const keyed = this.studio.bench().capture.on && curveOf(project, channel) !== undefined;
      return shown === value && !keyed ? [] : [{ channel, value }];
    });
    if (values.length === 0) this.notices.tell('The parts stand like that already');
    else this.poser.take(label, values);
  }

  /** Puts the pose of the chosen parts on the shelf, with a small picture of the view. */
  keep(): void {
    const pose = this.shownPose();
    const project = this.studio.project();
    if (pose.size === 0 || !project) {
      this.notices.tell('Pick the parts whose pose is to be kept first');
      return;
    }
    const names = new Set(project.poses.map(({ name }) => name));
    let n = project.poses.length + 1;
    while (names.has(`Pose ${n}`)) n++;
    const picture = this.view.picture({ width: 128, height: 80 });
    const kept: Pose = {
      id: crypto.randomUUID(),
      name: `Pose ${n}`,
      values: Object.fromEntries(pose),
      picture: picture === null ? null : this.assets.named(picture),
    };
    this.studio.edit('Keep a pose', (now) => keepPose(now, kept));
  }

  use(pose: Pose, mirrored: boolean): void {
    this.put(`Pose “${pose.name}”`, new Map(Object.entries(pose.values)), mirrored);
  }

  rename(pose: Pose, name: string): void {
    if (name.trim() !== '')
      this.studio.edit('Rename a pose', (project) => renamePose(project, pose.id, name.trim()));
  }

  remove(pose: Pose): void {
    this.studio.edit('Take a pose off the shelf', (project) => removePose(project, pose.id));
  }

  /** Poses held on or off. */
  toggleHeld(): void {
    const { held } = this.studio.bench();
    this.studio.set({ held: { ...held, on: !held.on } });
  }

  /** Lets the shot move over the span of the chosen keys, or the first half of the range. */
  release(): void {
    const project = this.studio.project();
    const { keys, held } = this.studio.bench();
    if (!project) return;
    const frames = keys.map(({ frame }) => frame);
    const { start, end } = project.range;
    const released =
      new Set(frames).size > 1
        ? { start: leastOf(frames), end: greatestOf(frames) }
        : { start, end: Math.round((start + end) / 2) };
    this.studio.set({ held: { ...held, released } });
  }

  /** Holds the poses of the whole shot again. */
  holdAll(): void {
    this.studio.set({ held: { ...this.studio.bench().held, released: null } });
  }
}
