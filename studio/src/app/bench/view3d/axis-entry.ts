import { computed, Injectable, inject, signal } from '@angular/core';
import type { AxisSpace } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { readAmount } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser, type ChannelValue } from '../poser';
import { Stage } from '../stage';
import { AXIS_LETTERS, TOOL_LABELS } from '../words';
import { axesOf, moved, readPose, sized, turned, type PartPose } from './part-pose';

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
  private pose: PartPose | null = null;

  readonly space = computed((): AxisSpace =>
    this.own() || this.studio.bench().tool === 'size' ? 'own' : this.studio.bench().axes,
  );
  readonly unit = computed(() => ({ select: '', move: 'm', turn: '°', size: '' })[this.studio.bench().tool]);
  readonly title = computed(() => {
    const axis = this.axis();
    if (axis === null) return '';
    const word = TOOL_LABELS[this.studio.bench().tool];
    const whose = { own: 'the part’s own', parent: 'its parent’s', world: 'the world’s' }[this.space()];
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
      this.pose = now ? readPose(now, this.studio.bench().parts.at(-1) ?? '') : null;
      this.own.set(false);
    }
    if (this.pose) this.axis.set(axis);
  }

  private values(text: string): readonly ChannelValue[] | null {
    const axis = this.axis();
    const amount = readAmount(text, this.unit());
    if (axis === null || !this.pose || amount.kind === 'wrong') return null;
    switch (this.studio.bench().tool) {
      case 'turn':
        return turned(this.pose, this.space(), axis, amount.value);
      case 'size':
        return sized(this.pose, axis, amount.value);
      case 'move':
      case 'select':
        return moved(this.pose, axesOf(this.pose, this.space())[axis]!.clone().multiplyScalar(amount.value));
    }
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
    const name = this.pose?.part.name ?? '';
    const axis = this.axis();
    this.end();
    if (values.length > 0)
      this.poser.take(`${TOOL_LABELS[this.studio.bench().tool]} ${name} ${AXIS_LETTERS[axis ?? 0]}`, values);
  }

  end(): void {
    this.poser.cancel();
    this.axis.set(null);
    this.pose = null;
  }
}
