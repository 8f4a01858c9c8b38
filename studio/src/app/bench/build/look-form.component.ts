import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { changePart } from '@kaizen/core';
import { Color } from 'three';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { PartNumbers } from '../posing/part-numbers';

/** A colour: the property whose red, green and blue it is made of. */
interface ShownColour {
  readonly label: string;
  readonly tip: string;
  readonly property: string;
}

const RGB = ['r', 'g', 'b'] as const;
const LIGHT: ShownColour = { label: 'Colour', tip: 'Colour of the light', property: 'light.color' };
const FILL: ShownColour = { label: 'Colour', tip: 'Colour of the fill', property: 'material.baseColor' };
const GLOW: ShownColour = {
  label: 'Glow',
  tip: 'What it sends out by itself; black: nothing',
  property: 'material.emissive',
};
const FINISH = [
  { label: 'Roughness', tip: '0: smooth as glass; 1: dull', property: 'material.roughness' },
  { label: 'Metal', tip: '0: no metal; 1: metal', property: 'material.metallic' },
] as const;

/**
 * How the chosen parts look at the playhead: colours and finish, each a channel that can be keyed like any other. Of several parts the colour of
 * the one chosen last shows, and whether it is mixed.
 */
@Component({
  selector: 'kz-look-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent],
  template: `
    <section>
      <div class="section-head">
        <h3>Look</h3>
        <span>at the playhead; can be keyed</span>
      </div>
      <div class="pair">
        @if (isMesh()) {
          <label class="field">
            <span class="label">Colour at rest{{ isRestMixed() ? ', mixed' : '' }}</span>
            <input
              class="color"
              type="color"
              [value]="restHex()"
              [disabled]="studio.readOnly()"
              matTooltip="Colour of the fill where no key says otherwise"
              (change)="setRest($any($event.target).value); $any($event.target).blur()"
            />
          </label>
        }
        @for (colour of colours(); track colour.label) {
          <label class="field">
            <span class="label">{{ colour.label }}{{ isMixed(colour) ? ', mixed' : '' }}</span>
            <input
              class="color"
              type="color"
              [value]="hexOf(colour)"
              [disabled]="studio.readOnly()"
              [matTooltip]="colour.tip"
              (change)="setColour(colour, $any($event.target).value); $any($event.target).blur()"
            />
          </label>
        }
        @for (number of finish(); track number.property) {
          <kz-number-field
            [label]="number.label"
            [tip]="number.tip"
            [values]="numbers.valuesOf(number.property)"
            [decimals]="2"
            [disabled]="studio.readOnly()"
            (changed)="setNumber(number.property, $event)"
          />
        }
      </div>
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class LookFormComponent {
  readonly studio = inject(Studio);
  readonly numbers = inject(PartNumbers);

  readonly isMesh = computed(() => this.numbers.properties().includes('material.roughness'));
  readonly colours = computed((): readonly ShownColour[] => (this.isMesh() ? [FILL, GLOW] : [LIGHT]));
  readonly finish = computed(() => (this.isMesh() ? FINISH : []));

  private readonly rests = computed(() =>
    this.numbers.parts().flatMap((part) => {
      if (part.kind !== 'mesh') return [];
      const [r, g, b] = part.material.baseColor;
      return [`#${new Color(r, g, b).getHexString()}`];
    }),
  );
  readonly restHex = computed(() => this.rests().at(-1) ?? '');
  readonly isRestMixed = computed(() => new Set(this.rests()).size > 1);

  setRest(hex: string): void {
    const { r, g, b } = new Color(hex);
    const ids = this.numbers.parts().map(({ id }) => id);
    this.studio.edit(`Colour of ${this.numbers.words()}`, (project) =>
      ids.reduce(
        (at, id) =>
          changePart(at, id, (part) =>
            part.kind === 'mesh'
              ? { ...part, material: { ...part.material, baseColor: [r, g, b, part.material.baseColor[3]] } }
              : part,
          ),
        project,
      ),
    );
  }

  isMixed({ property }: ShownColour): boolean {
    return RGB.some((letter) => new Set(this.numbers.valuesOf(`${property}.${letter}`)).size > 1);
  }

  /** The channels are linear, what is shown and typed is not: the standard of screens. */
  hexOf({ property }: ShownColour): string {
    const [r = 0, g = 0, b = 0] = RGB.map(
      (letter) => this.numbers.valuesOf(`${property}.${letter}`).at(-1) ?? 0,
    );
    return `#${new Color(r, g, b).getHexString()}`;
  }

  setColour({ label, property }: ShownColour, hex: string): void {
    const colour = new Color(hex);
    this.numbers.poseTogether(
      label,
      Object.fromEntries(RGB.map((letter) => [`${property}.${letter}`, colour[letter]])),
    );
  }

  setNumber(property: string, change: (value: number) => number): void {
    this.numbers.pose(property, (value) => Math.min(1, Math.max(0, change(value))));
  }
}
