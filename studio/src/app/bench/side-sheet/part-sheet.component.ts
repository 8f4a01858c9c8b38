import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { Color } from 'three';
import {
  changePart,
  channelKind,
  partProperties,
  possibleParents,
  propertyUnit,
  setRestValue,
  TURN_ORDERS,
  type Axis,
  type Part,
  type Rest,
  type Squash,
  type TurnOrder,
  changeParent,
  partOf,
  type Reparented,
} from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { decimalsOf } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { channelLabel } from '../stage/channel-label';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
import { Standing } from '../stage/standing';
import { namedApart } from './named-apart';
import { tiesOf } from './ties';

const AXES = ['x', 'y', 'z'] as const;
const TURN_ORDER_OPTIONS = TURN_ORDERS.map((value): Option<TurnOrder> => ({
  value,
  label: value,
  tip: `Turns in the order ${value}`,
}));
const SQUASH_AXES = AXES.map((value): Option<Axis> => ({
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
const GROUPS = [
  { group: 'translate', label: 'Place', unit: 'm' },
  { group: 'rotate', label: 'Turn', unit: '°' },
  { group: 'scale', label: 'Size', unit: '' },
] as const;
type RestGroup = keyof Rest;
const SQUASH: Squash = { axis: 'y', anchor: [0, 0, 0], frame: 'part' };

/** The side sheet Part: its values at the playhead, and what it is made of. */
@Component({
  selector: 'kz-part-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent, SelectComponent, VectorFieldComponent],
  templateUrl: './part-sheet.component.html',
  styleUrl: './sheet.scss',
})
export class PartSheetComponent {
  /** Whether a change of parent leaves the part where it is in the world. */
  readonly placeStays = signal(true);
  private readonly notices = inject(Notices);
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly standing = inject(Standing);
  readonly groups = GROUPS;
  readonly turnOrders = TURN_ORDER_OPTIONS;
  readonly squashAxes = SQUASH_AXES;
  readonly squashFrames = SQUASH_FRAMES;

  readonly part = computed((): Part | null => {
    const id = this.studio.bench().parts.at(-1);
    return this.stage.shown()?.parts.find((part) => part.id === id) ?? null;
  });
  readonly kindText = computed(() => {
    const part = this.part();
    return part?.kind === 'mesh' ? part.geometry.shape : (part?.kind ?? '');
  });
  readonly parents = computed((): readonly Option<string | null>[] => {
    const project = this.stage.shown();
    const part = this.part();
    const above = project && part ? possibleParents(project, part.id) : [];
    return [
      { value: null, label: 'the scene' },
      ...namedApart(above).map(({ id, name }) => ({ value: id, label: name })),
    ];
  });

  /** The part's channel values at the playhead; while it plays those from before. */
  private readonly values = linkedSignal<ReadonlyMap<string, number> | null, ReadonlyMap<string, number>>({
    source: () => {
      const part = this.part();
      if (!part || this.stage.playing()) return null;
      this.stage.now();
      return new Map(
        partProperties(part).map(({ property, rest }) => [
          property,
          this.stage.valueOf(`${part.id}/${property}`) ?? rest,
        ]),
      );
    },
    computation: (next, previous) => next ?? previous?.value ?? new Map<string, number>(),
  });
  private readonly looseChannels = computed(() => new Set(this.studio.loose().map((edit) => edit.channel)));

  channel(property: string): string {
    return `${this.part()?.id ?? ''}/${property}`;
  }

  value(property: string): readonly number[] {
    const value = this.values().get(property);
    return value === undefined ? [] : [value];
  }

  /** Place, turn and size at the playhead, as the rows of fields show them. */
  readonly triples = computed(() => {
    const triple = (group: RestGroup) => {
      const properties = AXES.map((axis) => `${group}.${axis}`);
      return {
        properties,
        values: properties.flatMap((property) => this.value(property)),
        loose: properties.map((property) => this.isLoose(property)),
        driven: properties.map((property) => this.isDriven(property)),
      };
    };
    return { translate: triple('translate'), rotate: triple('rotate'), scale: triple('scale') };
  });

  isLoose(property: string): boolean {
    return this.looseChannels().has(this.channel(property));
  }

  isDriven(property: string): boolean {
    const program = this.stage.program();
    return program?.isDriven(program.structure.slots.get(this.channel(property)) ?? -1) ?? false;
  }

  /** Channels besides place, turn and size: squash, looks and own ones. */
  readonly others = computed(() => {
    const part = this.part();
    const project = this.stage.shown();
    if (!part || !project) return [];
    return partProperties(part)
      .filter(({ property }) => this.isShown(part, property))
      .map(({ property }) => {
        const label = channelLabel(project, `${part.id}/${property}`);
        const unit = propertyUnit(property, part);
        return { property, label: label.plain, unit, decimals: decimalsOf(unit) };
      });
  });

  private isShown(part: Part, property: string): boolean {
    const kind = channelKind(property);
    if (kind === 'squash') return part.squash !== undefined;
    if (property === 'visible') return false;
    return kind === 'custom' || (kind === 'look' && !/^material\.|^light\.color/.test(property));
  }

  pose(property: string, change: (value: number) => number): void {
    const part = this.part();
    const [value] = this.value(property);
    if (!part || value === undefined) return;
    this.poser.take(`Set ${part.name}`, [{ channel: this.channel(property), value: change(value) }]);
  }

  showPose(property: string | null, change: ((value: number) => number) | null): void {
    const value = property === null ? undefined : this.values().get(property);
    if (property === null || change === null || value === undefined) this.poser.cancel();
    else this.poser.show([{ channel: this.channel(property), value: change(value) }]);
  }

  isVisible(): boolean {
    return (this.values().get('visible') ?? 1) >= 0.5;
  }

  toggleVisible(): void {
    const shown = this.isVisible() ? 0 : 1;
    this.pose('visible', () => shown);
  }

  /** Constraints on the part and drivers of its channels, with how they stand at the playhead. */
  readonly ties = computed(() => {
    const part = this.part();
    const project = this.stage.shown();
    if (!part || !project) return [];
    return tiesOf(project, part, this.standing);
  });

  setRest(group: RestGroup, { axis, change }: VectorChange): void {
    const part = this.part();
    if (!part) return;
    const value = change(part.rest[group][axis] ?? 0);
    this.studio.edit(`Rest of ${part.name}`, (project) =>
      setRestValue(project, part.id, `${group}.${AXES[axis]}`, value),
    );
  }

  private change(label: string, change: (part: Part) => Part): void {
    const part = this.part();
    if (part) this.studio.edit(label, (project) => changePart(project, part.id, change));
  }

  rename(name: string): void {
    if (name.trim() !== '' && name !== this.part()?.name)
      this.change('Rename', (part) => ({ ...part, name: name.trim() }));
  }

  setParent(parent: string | null): void {
    const part = this.part();
    const project = this.studio.project();
    if (!part || !project) return;
    const made = changeParent(project, part.id, parent, this.placeStays(), this.stage.frame());
    const above = parent === null ? 'the scene' : (partOf(project, parent)?.name ?? parent);
    this.studio.edit(`Parent of ${part.name}`, () => made.project);
    this.notices.tell(`${part.name} hangs on ${above}: ${REPARENTED[made.because ?? 'stayed']}`);
  }

  setTurnPoint(change: VectorChange): void {
    const { turnPoint } = this.studio.bench();
    if (turnPoint) this.studio.set({ turnPoint: replaced(turnPoint, change) });
  }

  setPivot(change: VectorChange): void {
    this.change('Pivot', (part) => ({ ...part, pivot: replaced(part.pivot, change) }));
  }

  setTurnOrder(turnOrder: TurnOrder): void {
    this.change(`Turn order ${turnOrder}`, (part) => ({ ...part, turnOrder }));
  }

  toggleSquash(): void {
    this.change('Squash', (part) => {
      if (!part.squash) return { ...part, squash: SQUASH };
      const { squash: _, ...plain } = part;
      return plain;
    });
  }

  setSquash(change: Partial<Squash>): void {
    this.change('Squash', (part) => ({ ...part, squash: { ...(part.squash ?? SQUASH), ...change } }));
  }

  setAnchor(change: VectorChange): void {
    const anchor = this.part()?.squash?.anchor ?? SQUASH.anchor;
    this.setSquash({ anchor: replaced(anchor, change) });
  }

  readonly color = computed(() => {
    const part = this.part();
    if (part?.kind !== 'mesh') return '';
    const [r, g, b] = part.material.baseColor;
    return `#${new Color(r, g, b).getHexString()}`;
  });

  setColor(hex: string): void {
    const { r, g, b } = new Color(hex);
    this.change('Colour', (part) => {
      if (part.kind !== 'mesh') return part;
      return { ...part, material: { ...part.material, baseColor: [r, g, b, part.material.baseColor[3]] } };
    });
  }
}

const REPARENTED: Readonly<Record<NonNullable<Reparented['because']> | 'stayed', string>> = {
  stayed: 'its place in the world stays',
  moves: 'it moves by keys or drivers, so its numbers stay and it may have jumped',
  shear: 'its place would need it sheared, so its numbers stay and it may have jumped',
  'not-asked': 'its numbers stay',
};

function replaced<T extends readonly number[]>(list: T, { axis, change }: VectorChange): T {
  return list.map((value, i) => (i === axis ? change(value) : value)) as unknown as T;
}
