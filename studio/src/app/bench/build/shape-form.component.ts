import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { changePart, scaledShape, shapeFields, type MeshPart, type Shape } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { PointsFormComponent, type Points } from './points-form.component';
import { SHAPE_WORDS } from './shape-words';

/** A number of a shape as the form shows it: by itself, or one of a list. */
interface ShownNumber {
  readonly name: string;
  readonly at: number | null;
  readonly label: string;
  readonly tip: string;
  readonly unit: string;
  readonly value: number | null;
  readonly whole: boolean;
  readonly least: number | null;
}

const AXES = ['X', 'Y', 'Z'];

/** The numbers of a simple shape, read off its description: sizes, teeth, points of a profile. */
@Component({
  selector: 'kz-shape-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, PointsFormComponent],
  template: `
    <section>
      <div class="section-head">
        <h3>Shape</h3>
        <span>{{ part().geometry.shape }}</span>
      </div>
      <div class="pair">
        @for (shown of numbers(); track shown.name + shown.at) {
          <kz-number-field
            [label]="shown.label"
            [unit]="shown.unit"
            [tip]="shown.tip"
            [values]="shown.value === null ? [] : [shown.value]"
            [decimals]="shown.whole ? 0 : 3"
            [disabled]="studio.readOnly()"
            (changed)="set(shown, $event)"
          />
        }
        <kz-number-field
          label="All sizes"
          unit="×"
          tip="Makes every length of the shape so many times as long"
          [values]="[1]"
          [decimals]="2"
          [disabled]="studio.readOnly()"
          (changed)="scale($event)"
        />
      </div>
      @for (list of lists(); track list.name) {
        <kz-points-form
          [label]="list.label"
          [tip]="list.tip"
          [points]="list.points"
          [closed]="list.closed"
          [least]="list.closed ? 3 : 2"
          (changed)="setPoints(list.name, $event)"
        />
      }
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class ShapeFormComponent {
  readonly part = input.required<MeshPart>();
  readonly studio = inject(Studio);

  private readonly entries = computed(() => {
    const { geometry } = this.part();
    if (geometry.shape === 'asset') return [];
    const values = geometry as unknown as Readonly<Record<string, unknown>>;
    return Object.entries(shapeFields(geometry.shape)).map(([name, field]) => ({
      name,
      field,
      value: values[name],
      words: SHAPE_WORDS[name] ?? { label: name, tip: '' },
    }));
  });

  readonly numbers = computed((): readonly ShownNumber[] =>
    this.entries().flatMap(({ name, field, value, words }): readonly ShownNumber[] => {
      const { type, minimum, exclusiveMinimum } = field.schema as {
        type?: string;
        minimum?: number;
        exclusiveMinimum?: number;
      };
      const common = { name, tip: words.tip, unit: field.unit ?? (type === 'array' ? 'm' : '') };
      const whole = type === 'integer';
      if (Array.isArray(value) && typeof value[0] === 'number') {
        const letters = value.length === 2 ? ['X', 'Z'] : AXES;
        return (value as number[]).map((each, at) => ({
          ...common,
          at,
          label: `Extent ${letters[at] ?? ''}`,
          value: each,
          whole,
          least: 1e-6,
        }));
      }
      if (Array.isArray(value)) return [];
      const least = minimum ?? (exclusiveMinimum === undefined ? null : 1e-6);
      return [
        {
          ...common,
          at: null,
          label: words.label,
          value: typeof value === 'number' ? value : null,
          whole,
          least,
        },
      ];
    }),
  );

  readonly lists = computed(() =>
    this.entries().flatMap(({ name, value, words }) =>
      Array.isArray(value) && Array.isArray(value[0])
        ? [{ name, ...words, points: value, closed: name === 'outline' }]
        : [],
    ),
  );

  private change(change: (shape: Shape) => Shape): void {
    const { id, name } = this.part();
    this.studio.edit(`Shape of ${name}`, (project) =>
      changePart(project, id, (part) =>
        part.kind === 'mesh' && part.geometry.shape !== 'asset'
          ? { ...part, geometry: change(part.geometry) }
          : part,
      ),
    );
  }

  set({ name, at, whole, least, value }: ShownNumber, change: (value: number) => number): void {
    const asked = change(value ?? 0);
    const next = Math.max(least ?? -Infinity, whole ? Math.round(asked) : asked);
    this.change((shape) => {
      const old = (shape as unknown as Readonly<Record<string, unknown>>)[name];
      const made = at === null ? next : (old as number[]).map((each, i) => (i === at ? next : each));
      return { ...shape, [name]: made };
    });
  }

  scale(change: (value: number) => number): void {
    const factor = change(1);
    if (factor > 0 && factor !== 1) this.change((shape) => scaledShape(shape, factor));
  }

  setPoints(name: string, points: Points): void {
    this.change((shape) => ({ ...shape, [name]: points }));
  }
}
