import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  changePart,
  channelKind,
  propertyUnit,
  TURN_ORDERS,
  type Asset,
  type Part,
  type Rest,
  type TurnOrder,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { InTurnDirective } from '../../ui/in-turn.directive';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { channelLabel } from '../stage/channel-label';
import { CameraFormComponent } from '../build/camera-form.component';
import { CopiesFormComponent } from '../build/copies-form.component';
import { NumbersFormComponent } from '../build/numbers-form.component';
import { CutsFormComponent } from '../build/cuts-form.component';
import { LookFormComponent } from '../build/look-form.component';
import { PathFormComponent } from '../build/path-form.component';
import { RunDirective } from '../../commands/run.directive';
import { ShapeFormComponent } from '../build/shape-form.component';
import { ShapesFormComponent } from '../build/shapes-form.component';
import { LinkHands } from '../links/link-hands';
import { PartNumbers } from '../posing/part-numbers';
import { SquashFormComponent } from '../posing/squash-form.component';
import { Stage } from '../stage/stage';

const AXES = ['x', 'y', 'z'] as const;
const TURN_ORDER_OPTIONS = TURN_ORDERS.map((value): Option<TurnOrder> => ({
  value,
  label: value,
  tip: `Turns in the order ${value}`,
}));
const GROUPS = [
  { group: 'translate', label: 'Place', unit: 'm' },
  { group: 'rotate', label: 'Turn', unit: '°' },
  { group: 'scale', label: 'Size', unit: '' },
] as const;
type RestGroup = keyof Rest;

/** The side sheet Part: its values at the playhead, and what it is made of. */
@Component({
  selector: 'kz-part-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    InTurnDirective,
    CameraFormComponent,
    CopiesFormComponent,
    CutsFormComponent,
    LookFormComponent,
    MatTooltip,
    NumberFieldComponent,
    NumbersFormComponent,
    PathFormComponent,
    RunDirective,
    SegmentsComponent,
    ShapeFormComponent,
    ShapesFormComponent,
    SquashFormComponent,
    VectorFieldComponent,
  ],
  templateUrl: './part-sheet.component.html',
  styleUrl: './sheet.scss',
})
export class PartSheetComponent {
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly numbers = inject(PartNumbers);
  private readonly hands = inject(LinkHands);
  readonly groups = GROUPS;
  readonly turnOrders = TURN_ORDER_OPTIONS;

  readonly part = computed((): Part | null => {
    const id = this.studio.bench().parts.at(-1);
    return this.stage.shown()?.parts.find((part) => part.id === id) ?? null;
  });
  readonly kindText = computed(() => {
    const part = this.part();
    return part?.kind === 'mesh' ? part.geometry.shape : (part?.kind ?? '');
  });
  /** Whether it is for several parts: then it has what all of them have. */
  readonly isForSeveral = computed(() => this.numbers.parts().length > 1);
  /** The names of all of them. */
  readonly names = computed(() =>
    this.numbers
      .parts()
      .map(({ name }) => name)
      .join(', '),
  );

  /** Place, turn and size at the playhead and at rest, as the rows of fields show them. */
  readonly triples = computed(() => {
    const { numbers } = this;
    const triple = (group: RestGroup) => {
      const properties = AXES.map((axis) => `${group}.${axis}`);
      return {
        properties,
        values: properties.map((property) => numbers.valuesOf(property)),
        rest: properties.map((property) => numbers.restOf(property)),
        loose: properties.map((property) => numbers.isLoose(property)),
        driven: properties.map((property) => numbers.isDriven(property)),
      };
    };
    return { translate: triple('translate'), rotate: triple('rotate'), scale: triple('scale') };
  });

  /** Channels besides place, turn and size that no form below shows: squash, lens, light. */
  readonly others = computed(() => {
    const part = this.part();
    const project = this.stage.shown();
    if (!part || !project) return [];
    return this.numbers
      .properties()
      .filter((property) => this.isShown(part, property))
      .map((property) => {
        const label = channelLabel(project, `${part.id}/${property}`);
        const unit = propertyUnit(property, part);
        return { property, label: label.plain, unit, decimals: decimalsOf(unit) };
      });
  });

  private isShown(part: Part, property: string): boolean {
    const kind = channelKind(property);
    if (kind === 'squash') return part.squash !== undefined;
    if (property === 'visible') return false;
    return kind === 'look' && !/^material\.|^light\.color|^morph\./.test(property);
  }

  private change(label: string, change: (part: Part) => Part): void {
    const part = this.part();
    if (part) this.studio.edit(label, (project) => changePart(project, part.id, change));
  }

  rename(name: string): void {
    if (name.trim() !== '' && name !== this.part()?.name)
      this.change('Rename', (part) => ({ ...part, name: name.trim() }));
  }

  setTurnPoint(change: VectorChange): void {
    const { turnPoint } = this.studio.bench();
    if (turnPoint) this.studio.set({ turnPoint: replaced(turnPoint, change) });
  }

  /** The pivots of all of them, along each axis. */
  readonly pivots = computed(() =>
    AXES.map((_, axis) => this.numbers.parts().map(({ pivot }) => pivot[axis]!)),
  );
  /** The turn order of all of them; null where they have different ones. */
  readonly turnOrder = computed((): TurnOrder | null => {
    const orders = new Set(this.numbers.parts().map(({ turnOrder }) => turnOrder));
    return orders.size === 1 ? [...orders][0]! : null;
  });
  /** Whether all of them have colours: fills, or light. */
  readonly hasLook = computed(() =>
    ['material.roughness', 'light.color.r'].some((property) => this.numbers.properties().includes(property)),
  );

  private ids(): readonly string[] {
    return this.numbers.parts().map(({ id }) => id);
  }

  setPivot(change: VectorChange): void {
    this.hands.movePivots(this.ids(), (pivot) => replaced(pivot, change));
  }

  setTurnOrder(turnOrder: TurnOrder): void {
    this.hands.changeTurnOrder(this.ids(), turnOrder);
  }

  /** The model that the part's mesh comes from. */
  readonly model = computed((): Asset | null => {
    const part = this.part();
    if (part?.kind !== 'mesh' || part.geometry.shape !== 'asset') return null;
    const { asset } = part.geometry;
    return this.stage.shown()?.assets.find(({ id }) => id === asset) ?? null;
  });
}

function replaced<T extends readonly number[]>(list: T, { axis, change }: VectorChange): T {
  return list.map((value, i) => (i === axis ? change(value) : value)) as unknown as T;
}
