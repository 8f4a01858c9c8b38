import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import {
  channelName,
  constraintSays,
  partOf,
  partProperties,
  possibleParents,
  type Constraint,
  type Driver,
  type Keeps,
  type Part,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../../ui/amount';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { channelLabel } from '../stage/channel-label';
import { namedApart } from '../stage/named-apart';
import { Stage } from '../stage/stage';
import { Standing, type State } from '../stage/standing';
import { DriveHands } from '../drive/drive-hands';
import { DriverCardComponent } from '../drive/driver-card.component';
import { DRIVER_WORDS } from '../drive/driver-words';
import { EchoRowFormComponent } from '../drive/echo-row-form.component';
import { ConstraintCardComponent } from './constraint-card.component';
import { LinkHands } from './link-hands';
import { linksOf, type DriverTie } from './ties';
import { nameOf } from '../stage/said';

/** The side sheet Links: what the chosen part rides on and carries, what drives it and what holds it, in words. */
@Component({
  selector: 'kz-links-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ConstraintCardComponent,
    DriverCardComponent,
    EchoRowFormComponent,
    MatIcon,
    RunDirective,
    SegmentsComponent,
    SelectComponent,
  ],
  templateUrl: './links-sheet.component.html',
  styleUrl: './links-sheet.scss',
})
export class LinksSheetComponent {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly standing = inject(Standing);
  readonly hands = inject(LinkHands);
  private readonly drive = inject(DriveHands);
  readonly presses = [
    { id: 'link.attach', label: 'Attach …' },
    { id: 'link.plant', label: 'Plant' },
    { id: 'link.plant-arm', label: 'Plant the arm’s end' },
    { id: 'link.aim', label: 'Aim …' },
    { id: 'link.reach', label: 'Reach …' },
    { id: 'link.chase', label: 'Chase …' },
    { id: 'link.heading', label: 'Heading' },
    { id: 'link.along', label: 'Along …' },
  ] as const;

  readonly drivers = Object.entries(DRIVER_WORDS).map(([kind, { label, tip }]) => ({
    id: `drive.${kind}`,
    label,
    tip,
  }));
  readonly several = computed(() => this.studio.bench().parts.length > 1);

  /** The channels of the part that can be driven. */
  readonly channels = computed((): readonly Option<string>[] => {
    const part = this.part();
    const project = this.stage.shown();
    return part && project
      ? partProperties(part).map(({ property }) => {
          const channel = channelName(part.id, property);
          return { value: channel, label: channelLabel(project, channel).short };
        })
      : [];
  });
  readonly target = computed(() => {
    const part = this.part();
    return part ? this.drive.targetFor(part.id) : '';
  });

  chooseTarget(channel: string): void {
    this.studio.pick({ channels: [channel], keys: [], handles: [] });
  }

  /** Whether a driver of the same channel stands before one in a list. */
  isAfterItsLike(drivers: readonly Driver[], at: number): boolean {
    return drivers.slice(0, at).some(({ target }) => target === drivers[at]!.target);
  }

  isBeforeItsLike(drivers: readonly Driver[], at: number): boolean {
    return drivers.slice(at + 1).some(({ target }) => target === drivers[at]!.target);
  }

  readonly part = computed((): Part | null => {
    const id = this.studio.bench().parts.at(-1);
    const project = this.stage.shown();
    return (id !== undefined && project && partOf(project, id)) || null;
  });
  readonly ties = computed(() => {
    const part = this.part();
    const project = this.stage.shown();
    return part && project ? linksOf(project, part) : null;
  });
  readonly above = computed((): Part | null => {
    const parent = this.part()?.parent ?? null;
    const project = this.stage.shown();
    return (parent !== null && project && partOf(project, parent)) || null;
  });
  readonly summary = computed(() => {
    const part = this.part();
    const ties = this.ties();
    if (!part || !ties) return '';
    const driven = new Set(ties.drivenBy.map(({ target }) => target)).size;
    const kind = part.kind === 'mesh' ? part.geometry.shape : part.kind;
    return driven === 0 ? kind : `${kind}, ${driven} ${driven === 1 ? 'channel' : 'channels'} driven`;
  });
  readonly parents = computed((): readonly Option<string | null>[] => {
    const project = this.stage.shown();
    const part = this.part();
    const possible = project && part ? possibleParents(project, part.id) : [];
    return [
      { value: null, label: 'the scene' },
      ...namedApart(possible).map(({ id, name }) => ({ value: id, label: name })),
    ];
  });
  readonly keepings = computed((): readonly Option<Keeps>[] => [
    {
      value: 'place',
      label: 'Place',
      tip: `Its place in the world on frame ${shownFrame(this.stage.frame())} stays; its own motion goes on as it is`,
    },
    {
      value: 'motion',
      label: 'Motion',
      tip: 'Its whole motion in the world stays: where what it rides on moves, it gets a key on every frame',
    },
    { value: 'numbers', label: 'Numbers', tip: 'Its numbers stay, and it goes where they put it' },
  ]);

  /** The part’s pivot in the world and its own place, as texts. */
  readonly places = computed(() => {
    const now = this.stage.now();
    const part = this.part();
    const i = now && part ? (now.program.structure.partIndex.get(part.id) ?? -1) : -1;
    if (!now || !part || i < 0) return { world: ['', '', ''], own: ['', '', ''] };
    const world = now.out.world[i]!;
    const slot = now.program.structure.firstSlot[i]!;
    const at = (row: number) =>
      world[row]! * part.pivot[0] +
      world[4 + row]! * part.pivot[1] +
      world[8 + row]! * part.pivot[2] +
      world[12 + row]!;
    return {
      world: [0, 1, 2].map((row) => shownNumber(at(row), 3)),
      own: [0, 1, 2].map((n) => shownNumber(now.out.channels[slot + n]!, 3)),
    };
  });

  stateOf({ driver }: DriverTie): State {
    return this.standing.ofDriver(driver);
  }

  /** The driven value at the playhead with its unit; where the driver fails, that. */
  valueOf(tie: DriverTie): string {
    const state = this.stateOf(tie);
    const project = this.stage.shown();
    if (state.bad || tie.driver.muted || !project) return state.word;
    const value = this.stage.valueOf(tie.channel);
    if (value === null) return '';
    const { unit } = channelLabel(project, tie.channel);
    return `${shownNumber(value, decimalsOf(unit))} ${unit}`.trim();
  }

  nameOf(id: string): string {
    const project = this.stage.shown();
    return project ? nameOf(project, id) : id;
  }

  saysOf(constraint: Constraint): string {
    const project = this.stage.shown();
    return project ? constraintSays(project, constraint) : '';
  }
}
