import { computed, Injectable, inject, signal } from '@angular/core';
import type { ChannelValue } from '../posing/poser';
import { Studio } from '../../state/studio';
import { applyAmount, readAmount, shownNumber, decimalsOf, type Amount } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
import { AXIS_LETTERS, TOOL_LABELS } from '../stage/words';
import { HandledParts } from './handled-parts';
import type { PartPose } from './part-pose';

const PROPERTIES = { select: 'translate', move: 'translate', turn: 'rotate', size: 'scale' } as const;

/** What stands in one of the strip's fields: what was typed, or nothing yet, and what that makes. */
export interface StripField {
  readonly letter: 'X' | 'Y' | 'Z';
  readonly text: string;
  /** What the part chosen last has; null where several have different ones. */
  readonly value: number | null;
  readonly makes: string;
  readonly wrong: boolean;
}

/**
 * Exact amounts for the tool in hand: three fields at the pivot. A number is what the part's own channel becomes; `by` and
 * `times` go along the chosen axes, and about the point that is set. The picture follows; Enter takes, Esc leaves.
 */
@Injectable({ providedIn: 'root' })
export class AmountStrip {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly notices = inject(Notices);
  private readonly hands = inject(HandledParts);
  /** Which field has the focus when it opens; null while it is shut. */
  readonly open = signal<number | null>(null);
  private readonly texts = signal<readonly string[]>(['', '', '']);
  private readonly poses = signal<readonly PartPose[]>([]);
  /** Where the part chosen last had its pivot when the strip opened, in world metres. */
  readonly pivot = computed(() => this.poses().at(-1)?.pivot ?? null);
  private readonly starts = signal<readonly ReadonlyMap<string, number>[]>([]);

  readonly unit = computed(() => ({ select: 'm', move: 'm', turn: '°', size: '' })[this.studio.bench().tool]);
  readonly title = computed(() => {
    const poses = this.poses();
    const name = poses.length === 1 ? poses[0]!.part.name : `${poses.length} parts`;
    return `${TOOL_LABELS[this.studio.bench().tool]} ${name}`;
  });
  readonly about = computed(() => {
    const { axes, turnPoint, tool } = this.studio.bench();
    const along = {
      own: 'its own axes',
      parent: 'its parent’s axes',
      world: 'the world’s axes',
      view: 'the view’s axes',
    };
    const about = turnPoint && tool !== 'move' ? ' about the point' : '';
    return `“by” goes along ${tool === 'size' ? along.own : along[axes]}${about}`;
  });
  readonly fields = computed((): readonly StripField[] =>
    this.texts().map((text, i) => {
      const values = [...(this.starts()[i]?.values() ?? [])];
      const value = values.every((each) => each === values[0]) ? (values.at(-1) ?? null) : null;
      const amount = this.amountOf(text);
      const made = amount && amount.kind !== 'wrong' && value !== null ? applyAmount(amount, value) : null;
      return {
        letter: AXIS_LETTERS[i]!,
        text,
        value,
        makes: made === null ? '' : `= ${shownNumber(made, decimalsOf(this.unit()))}`,
        wrong: amount?.kind === 'wrong',
      };
    }),
  );

  canOpen(): boolean {
    const { tool, parts } = this.studio.bench();
    return tool !== 'select' && parts.length > 0 && !this.studio.readOnly() && !this.stage.playing();
  }

  begin(field = 0): void {
    const poses = this.hands.poses();
    if (poses.length === 0) return;
    const property = PROPERTIES[this.studio.bench().tool];
    this.poses.set(poses);
    this.starts.set(
      ['x', 'y', 'z'].map(
        (axis) =>
          new Map(
            poses.map(({ part }) => {
              const channel = `${part.id}/${property}.${axis}`;
              return [channel, this.stage.valueOf(channel) ?? 0];
            }),
          ),
      ),
    );
    this.texts.set(['', '', '']);
    this.open.set(field);
  }

  type(field: number, text: string): void {
    this.texts.update((texts) => texts.map((each, i) => (i === field ? text : each)));
    this.poser.show(this.values());
  }

  /** Takes what was typed; where a number is none it says so and stays. */
  take(): void {
    const wrong = this.texts()
      .map((text) => this.amountOf(text))
      .find((amount) => amount?.kind === 'wrong');
    if (wrong?.kind === 'wrong') {
      this.notices.warn(wrong.message);
      return;
    }
    const values = this.values();
    const letters = this.texts().flatMap((text, i) => (text.trim() === '' ? [] : [AXIS_LETTERS[i]!]));
    const label = `${this.title()} ${letters.join(', ')}`;
    this.end();
    if (values.length > 0) this.poser.take(label, values);
  }

  end(): void {
    if (this.open() === null) return;
    this.poser.cancel();
    this.open.set(null);
  }

  private amountOf(text: string): Amount | null {
    return text.trim() === '' ? null : readAmount(text, this.unit());
  }

  /** Relative amounts first, along the axes; then the numbers, each to its own channel. */
  private values(): readonly ChannelValue[] {
    const amounts = this.texts().map((text) => this.amountOf(text));
    const factor = this.studio.bench().tool === 'size';
    const along = amounts.map((amount) =>
      amount && (amount.kind === 'by' || amount.kind === 'times') && factor === (amount.kind === 'times')
        ? amount.value
        : null,
    );
    const relative = along.some((each) => each !== null) ? this.hands.by(this.poses(), along) : [];
    const changed = new Map(relative.map(({ channel, value }) => [channel, value]));
    amounts.forEach((amount, i) => {
      if (!amount || amount.kind === 'wrong' || along[i] !== null) return;
      for (const [channel, start] of this.starts()[i] ?? []) changed.set(channel, applyAmount(amount, start));
    });
    return [...changed].map(([channel, value]) => ({ channel, value }));
  }
}
