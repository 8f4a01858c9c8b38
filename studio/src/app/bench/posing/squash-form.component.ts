import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  changePart,
  partOf,
  squashHere,
  USUAL_PATTERN,
  type Axis,
  type Part,
  type Project,
  type Squash,
  type SquashPattern,
} from '@kaizen/core';
import { switching } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownFrame, shownNumber } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { Proposals, type Proposal } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { ContactHands } from './contact-hands';
import { USUAL_SQUASH } from './usual-squash';

const SQUASH_AXES = (['x', 'y', 'z'] as const).map((value): Option<Axis> => ({
  value,
  label: value.toUpperCase(),
  tip: `Squash along ${value.toUpperCase()}`,
}));
const SQUASH_FRAMES: readonly Option<Squash['frame']>[] = [
  { value: 'part', label: 'part’s', tip: 'Along the part’s own axis' },
  {
    value: 'parent',
    label: 'parent’s',
    tip: 'Along the parent’s axis: a spinning part flattens against the ground',
  },
];
const WAYS: readonly Option<'plain' | 'rounded'>[] = [
  { value: 'plain', label: 'Plain', tip: 'The whole part is stretched alike' },
  {
    value: 'rounded',
    label: 'Rounded',
    tip: 'The mesh bulges between two bounds, every slice keeping its volume',
  },
];

/** Squash of a part in the sheet: along what, how, five frames about a contact, readings, and setting it down. */
@Component({
  selector: 'kz-squash-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, SegmentsComponent, VectorFieldComponent, RunDirective],
  templateUrl: './squash-form.component.html',
  styleUrl: './squash-form.scss',
})
export class SquashFormComponent {
  readonly part = input.required<Part>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  readonly contact = inject(ContactHands);
  readonly axes = SQUASH_AXES;
  readonly frames = SQUASH_FRAMES;
  readonly ways = WAYS;
  private readonly held = signal(true);
  /** The amounts of the pattern, for the part that is chosen. */
  readonly pattern = linkedSignal<string, SquashPattern>({
    source: () => this.part().id,
    // the same part is another object with each edit, also one that is only shown
    computation: (part, before) => (before?.source === part ? before.value : USUAL_PATTERN),
  });
  readonly cells = computed(() => {
    const frame = this.stage.frame();
    const { before, contact, after } = this.pattern();
    return [
      { frame: shownFrame(frame - 2), name: null, value: 0, words: 'as it is' },
      { frame: shownFrame(frame - 1), name: 'before', value: before, words: percent(before) },
      { frame: shownFrame(frame), name: 'contact', value: contact, words: percent(contact) },
      { frame: shownFrame(frame + 1), name: 'after', value: after, words: percent(after) },
      { frame: shownFrame(frame + 2), name: null, value: 0, words: 'as it is' },
    ] as const;
  });
  /** The squash as it is kept: what is only shown while one rests on a press must not move the press away. */
  readonly squash = computed(() => {
    const project = this.studio.project();
    const { id } = this.part();
    return project && partOf(project, id)?.squash;
  });
  readonly way = computed((): 'plain' | 'rounded' => (this.squash()?.round ? 'rounded' : 'plain'));
  readonly frameText = computed(() => shownFrame(this.stage.frame()));

  /** How it is at the playhead: height, width, lowest point; null while it plays or has no simple shape. */
  readonly readings = computed(() => {
    if (this.stage.playing()) return null;
    this.stage.now();
    const extent = this.contact.extent(this.part());
    if (!extent) return null;
    const size = (axis: 0 | 1 | 2) => extent.most[axis] - extent.least[axis];
    const floor = this.stage.shown()?.floor ?? 0;
    const off = extent.lowest[1] - floor;
    return {
      height: `${shownNumber(size(1), 3)} m`,
      width: `${shownNumber(Math.max(size(0), size(2)), 3)} m`,
      volume: `${shownNumber(extent.volume, 4)} m³`,
      off: `${shownNumber(off * 1000, 1)} mm`,
      sinks: off < -5e-5,
    };
  });

  constructor() {
    const when = () => !this.studio.readOnly();
    offerCommands([
      {
        id: 'squash.lay',
        label: 'Squash here: key five frames about the playhead',
        group: 'Pose',
        when,
        run: () => this.proposals.take(this.proposal()),
      },
      switching(
        { id: 'squash.held', label: 'Squash here with each frame held, or gliding', group: 'Pose' },
        this.held,
        (held) => this.held.set(held),
      ),
    ]);
  }

  private change(label: string, change: (part: Part) => Part): void {
    const { id } = this.part();
    this.studio.edit(label, (project) => changePart(project, id, change));
  }

  set(change: Partial<Squash>): void {
    this.change('Squash', (part) => ({ ...part, squash: { ...(part.squash ?? USUAL_SQUASH), ...change } }));
  }

  setAnchor({ axis, change }: VectorChange): void {
    const anchor = this.part().squash?.anchor ?? USUAL_SQUASH.anchor;
    this.set({
      anchor: anchor.map((value, i) => (i === axis ? change(value) : value)) as unknown as Squash['anchor'],
    });
  }

  /** Rounded with bounds at the part's own ends along the axis, as far as its shape is known. */
  setWay(way: 'plain' | 'rounded'): void {
    this.change('Squash', (part) => {
      const { round: _, ...plain } = part.squash ?? USUAL_SQUASH;
      return { ...part, squash: way === 'plain' ? plain : { ...plain, round: this.usualBounds(part) } };
    });
  }

  private usualBounds(part: Part): NonNullable<Squash['round']> {
    const extent = this.contact.extent(part);
    const height = extent ? extent.most[1] - extent.least[1] : 1;
    const rounded = (n: number) => Math.round(n * 1000) / 1000;
    return { from: -rounded(height * 0.05), to: rounded(height * 1.05) };
  }

  setBound(end: 'from' | 'to', change: (value: number) => number): void {
    const round = this.part().squash?.round;
    if (!round) return;
    const next = { ...round, [end]: change(round[end]) };
    if (next.to > next.from) this.set({ round: next });
  }

  setAmount(name: 'before' | 'contact' | 'after', change: (value: number) => number): void {
    this.pattern.update((pattern) => ({ ...pattern, [name]: change(pattern[name]) }));
    if (this.proposals.shown()) this.rest();
  }

  private proposal(): Proposal {
    const { id } = this.part();
    const frame = this.stage.frame();
    const [pattern, held] = [this.pattern(), this.held()];
    return {
      label: `Squash here, f ${shownFrame(frame)}`,
      edit: (project: Project) => squashHere(project, id, frame, pattern, held),
    };
  }

  rest(): void {
    if (!this.studio.readOnly()) this.proposals.show(this.proposal());
  }
  leave(): void {
    this.proposals.drop();
  }
}

function percent(amount: number): string {
  return `${amount < 0 ? '−' : '+'}${shownNumber(Math.abs(amount) * 100, 0)} %`;
}
