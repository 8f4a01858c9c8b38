import { computed, Injectable, inject, signal } from '@angular/core';
import { Matrix4, Vector3 } from 'three';
import type { Axes } from '../../state/bench';
import { Studio } from '../../state/studio';
import { readAmount } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser, type ChannelValue } from '../poser';
import { Stage } from '../stage';
import { AXIS_LETTERS, TOOL_LABELS } from '../words';
import { axesOf, moved, readPoses, sized, turned, type PartPose } from './part-pose';
import { ViewControl } from './view-control';

/**
 * Posing by keyboard: X, Y or Z picks the axis of the tool (again: the part's own), a typed amount shows at once, Enter takes
 * it, Esc gives it up.
 */
@Injectable({ providedIn: 'root' })
export class AxisEntry {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly notices = inject(Notices);
  readonly axis = signal<number | null>(null);
  readonly own = signal(false);
  private readonly view = inject(ViewControl);
  private poses: readonly PartPose[] = [];

  readonly space = computed((): Axes =>
    this.own() || this.studio.bench().tool === 'size' ? 'own' : this.studio.bench().axes,
  );
  readonly unit = computed(() => ({ select: '', move: 'm', turn: '°', size: '' })[this.studio.bench().tool]);
  readonly title = computed(() => {
    const axis = this.axis();
    if (axis === null) return '';
    const word = TOOL_LABELS[this.studio.bench().tool];
    const whose = {
      own: 'the part’s own',
      parent: 'its parent’s',
      world: 'the world’s',
      view: 'the view’s',
    }[this.space()];
    return `${word} ${AXIS_LETTERS[axis]}, ${whose} axis${this.studio.bench().tool === 'size' ? ', times' : ', by'}`;
  });

  canBegin(): boolean {
    const { tool, parts } = this.studio.bench();
    return tool !== 'select' && parts.length > 0 && !this.studio.readOnly();
  }

  /** Picks an axis; the same one again means the part's own. */
  begin(axis: number): void {
    if (this.axis() === axis) {
      this.own.update((own) => !own);
      return;
    }
    this.stage.stop();
    if (this.axis() === null) {
      const now = this.stage.now();
      this.poses = now ? readPoses(now, this.studio.bench().parts) : [];
      this.own.set(false);
    }
    if (this.poses.length > 0) this.axis.set(axis);
  }

  private values(text: string): readonly ChannelValue[] | null {
    const axis = this.axis();
    const amount = readAmount(text, this.unit());
    if (axis === null || this.poses.length === 0 || amount.kind === 'wrong') return null;
    return this.handled(axis, amount.value);
  }

  /** The chosen parts moved, turned or sized by an amount. */
  private handled(axis: number, amount: number): readonly ChannelValue[] {
    const { tool, turnPoint } = this.studio.bench();
    const point = turnPoint ? new Vector3(...turnPoint) : null;
    const view = this.view.looks() ?? new Matrix4();
    const by = { space: this.space(), axis, amount, point, view };
    switch (tool) {
      case 'turn':
        return this.poses.flatMap((pose) => turned(pose, by));
      case 'size':
        return this.poses.flatMap((pose) => sized(pose, by));
      case 'move':
      case 'select': {
        const shift = axesOf(this.poses.at(-1)!, this.space(), view)[axis]!.clone().multiplyScalar(amount);
        return this.poses.flatMap((pose) => moved(pose, shift));
      }
    }
  }

  /** Moves, turns or sizes the chosen parts by one step: what an arrow key does. Without a tool they are moved. */
  nudge(axis: number, way: 1 | -1): void {
    const now = this.stage.now();
    const { tool, steps, parts } = this.studio.bench();
    this.poses = now ? readPoses(now, parts) : [];
    if (this.poses.length === 0) return;
    const amount = {
      turn: way * steps.angle,
      size: way > 0 ? 1.05 : 1 / 1.05,
      move: way * steps.length,
      select: way * steps.length,
    }[tool];
    const values = this.handled(axis, amount);
    this.poses = [];
    if (values.length > 0) this.poser.take('Nudge', values);
  }

  show(text: string): void {
    this.poser.show(this.values(text) ?? []);
  }

  take(text: string): void {
    const values = this.values(text);
    if (!values) {
      const amount = readAmount(text, this.unit());
      if (amount.kind === 'wrong') this.notices.warn(amount.message);
      return;
    }
    const name = this.poses.length > 1 ? `${this.poses.length} parts` : (this.poses[0]?.part.name ?? '');
    const axis = this.axis();
    this.end();
    if (values.length > 0)
      this.poser.take(`${TOOL_LABELS[this.studio.bench().tool]} ${name} ${AXIS_LETTERS[axis ?? 0]}`, values);
  }

  end(): void {
    this.poser.cancel();
    this.axis.set(null);
    this.poses = [];
  }
}
