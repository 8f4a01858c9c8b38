import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { changePart, channelName, type Part } from '@kaizen/core';
import { Color } from 'three';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';

/** A colour of a part: the three channels it is made of. */
interface ShownColour {
  readonly label: string;
  readonly tip: string;
  readonly channels: readonly string[];
}

const RGB = ['r', 'g', 'b'];

/** How a part looks at the playhead: colours and finish, each a channel that can be keyed like any other. */
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
        @if (part().kind === 'mesh') {
          <label class="field">
            <span class="label">Colour at rest</span>
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
            <span class="label">{{ colour.label }}</span>
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
        @for (number of numbers(); track number.channel) {
          <kz-number-field
            [label]="number.label"
            [tip]="number.tip"
            [values]="valueOf(number.channel)"
            [decimals]="2"
            [disabled]="studio.readOnly()"
            (changed)="setNumber(number.channel, $event)"
          />
        }
      </div>
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class LookFormComponent {
  readonly part = input.required<Part>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);

  readonly colours = computed((): readonly ShownColour[] => {
    const { id, kind } = this.part();
    const of = (property: string) => RGB.map((letter) => channelName(id, `${property}.${letter}`));
    if (kind === 'light')
      return [{ label: 'Colour', tip: 'Colour of the light', channels: of('light.color') }];
    return [
      { label: 'Colour', tip: 'Colour of the fill', channels: of('material.baseColor') },
      {
        label: 'Glow',
        tip: 'What it sends out by itself; black: nothing',
        channels: of('material.emissive'),
      },
    ];
  });
  readonly numbers = computed(() => {
    const { id, kind } = this.part();
    if (kind !== 'mesh') return [];
    return [
      {
        label: 'Roughness',
        tip: '0: smooth as glass; 1: dull',
        channel: channelName(id, 'material.roughness'),
      },
      { label: 'Metal', tip: '0: no metal; 1: metal', channel: channelName(id, 'material.metallic') },
    ];
  });

  readonly restHex = computed(() => {
    const part = this.part();
    if (part.kind !== 'mesh') return '';
    const [r, g, b] = part.material.baseColor;
    return `#${new Color(r, g, b).getHexString()}`;
  });

  setRest(hex: string): void {
    const { r, g, b } = new Color(hex);
    const { id, name } = this.part();
    this.studio.edit(`Colour of ${name}`, (project) =>
      changePart(project, id, (part) =>
        part.kind === 'mesh'
          ? { ...part, material: { ...part.material, baseColor: [r, g, b, part.material.baseColor[3]] } }
          : part,
      ),
    );
  }

  valueOf(channel: string): readonly number[] {
    const value = this.stage.valueOf(channel);
    return value === null ? [] : [value];
  }

  /** The channels are linear, what is shown and typed is not: the standard of screens. */
  hexOf({ channels }: ShownColour): string {
    const [r = 0, g = 0, b = 0] = channels.map((channel) => this.stage.valueOf(channel) ?? 0);
    return `#${new Color(r, g, b).getHexString()}`;
  }

  setColour({ label, channels }: ShownColour, hex: string): void {
    const { r, g, b } = new Color(hex);
    const next = [r, g, b];
    this.poser.take(
      `${label} of ${this.part().name}`,
      channels.map((channel, n) => ({ channel, value: next[n]! })),
    );
  }

  setNumber(channel: string, change: (value: number) => number): void {
    const value = Math.min(1, Math.max(0, change(this.stage.valueOf(channel) ?? 0)));
    this.poser.take(`Look of ${this.part().name}`, [{ channel, value }]);
  }
}
