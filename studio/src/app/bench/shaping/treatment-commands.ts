import { Injectable, inject } from '@angular/core';
import { ownerOf } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { optionsOf } from '../../ui/option';
import { namedChannels } from '../stage/picking';
import { TREATMENT_LABELS } from './treatment-fields';
import { TreatmentTools, type TreatmentRef } from './treatment-tools';

/** Commands of treatments: laying one over the chosen channel, and what is done to one of them. */
@Injectable({ providedIn: 'root' })
export class TreatmentCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(TreatmentTools);

  list(): readonly Command[] {
    const { tools } = this;
    const free = ({ channel }: TreatmentRef) => !tools.locked(channel);
    const hasCurve = ({ channel, index }: TreatmentRef) =>
      typeof tools.treatment(channel, index)?.weight === 'object';
    const one = { group: 'Shape', meant: () => tools.chosen(), when: free } as const;
    return [
      ...optionsOf(TREATMENT_LABELS).map(({ value, label }) =>
        onItem<string>({
          id: `treatment.${value}`,
          label: `Lay over the chosen channel: ${label}`,
          group: 'Shape',
          meant: () => this.oneChannel(),
          when: (channel) => !tools.locked(channel),
          run: (channel) => tools.add(channel, value),
        }),
      ),
      onItem<TreatmentRef>({
        ...one,
        id: 'treatment.mute',
        label: 'Pass the chosen treatment by, or let it act',
        on: ({ channel, index }) => tools.treatment(channel, index)?.muted ?? false,
        run: ({ channel, index }) => tools.mute(channel, index),
      }),
      onItem<TreatmentRef>({
        ...one,
        id: 'treatment.remove',
        label: 'Take the chosen treatment away',
        run: ({ channel, index }) => tools.remove(channel, index),
      }),
      onItem<TreatmentRef>({
        ...one,
        id: 'treatment.over-time',
        label: 'Weight of the chosen treatment over time, or one number',
        on: hasCurve,
        run: ({ channel, index }) => tools.toggleWeight(channel, index),
      }),
      onItem<TreatmentRef>({
        ...one,
        id: 'treatment.plot-weight',
        label: 'Draw the weight of the chosen treatment in the plot',
        when: hasCurve,
        run: ({ channel, index }) => tools.plotWeight(channel, index),
      }),
      onItem<string>({
        id: 'treatment.bake',
        label: 'Bake the treatments of the chosen channel to keys',
        group: 'Shape',
        meant: () => this.oneChannel(),
        when: (channel) => !tools.locked(channel),
        run: (channel) => tools.bake(channel),
      }),
    ];
  }

  /** The channel that is chosen, where it is one. */
  private oneChannel(): string | null {
    const named = [...new Set(namedChannels(this.studio.bench()).map(ownerOf))];
    return named.length === 1 ? named[0]! : null;
  }
}
