import { computed, Injectable, inject, linkedSignal, untracked } from '@angular/core';
import { channelName, partOf, partProperties, restValue, setRestValue, type Part } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Poser, type ChannelValue } from './poser';
import { chosenParts } from '../stage/chosen-parts';
import { Stage, type Evaluated } from '../stage/stage';

/** The numbers of all chosen parts, property by property: what a field shows stands for all of them, and what it gives goes to all. */
@Injectable({ providedIn: 'root' })
export class PartNumbers {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);

  /** The chosen parts, the one chosen last at the end. */
  readonly parts = computed(() => chosenParts(this.stage.shown(), this.studio.bench().parts));

  /** What all chosen parts have. */
  readonly properties = computed((): readonly string[] => {
    const [first, ...others] = this.parts();
    const all = first ? partProperties(first).map(({ property }) => property) : [];
    return all.filter((property) => others.every((part) => restValue(part, property) !== null));
  });

  /** The values at the playhead, one a part; while it plays those from before, as long as the same parts are chosen. */
  private readonly values = linkedSignal<Source, Values>({
    source: () => {
      const playing = this.stage.playing();
      return { parts: this.parts(), playing, now: playing ? null : this.stage.now() };
    },
    computation: ({ parts, playing }, previous) =>
      playing && previous?.source.parts === parts ? previous.value : untracked(() => this.valuesNow(parts)),
  });

  private valuesNow(parts: readonly Part[]): Values {
    return new Map(
      this.properties().map((property) => [property, parts.map((part) => this.now(part, property))]),
    );
  }

  private now(part: Part, property: string): number {
    return this.stage.valueOf(channelName(part.id, property)) ?? restValue(part, property) ?? 0;
  }

  valuesOf(property: string): readonly number[] {
    return this.values().get(property) ?? [];
  }

  private readonly looseChannels = computed(() => new Set(this.studio.loose().map(({ channel }) => channel)));

  isLoose(property: string): boolean {
    return this.parts().some(({ id }) => this.looseChannels().has(channelName(id, property)));
  }

  /** Whether drivers give it to every one of them. */
  isDriven(property: string): boolean {
    const program = this.stage.program();
    const isDriven = ({ id }: Part) =>
      program?.isDriven(program.structure.slots.get(channelName(id, property)) ?? -1) ?? false;
    return this.parts().length > 0 && this.parts().every(isDriven);
  }

  private changed(property: string, change: (value: number) => number): readonly ChannelValue[] {
    const values = this.valuesOf(property);
    return this.parts().flatMap(({ id }, i) =>
      values[i] === undefined ? [] : [{ channel: channelName(id, property), value: change(values[i]) }],
    );
  }

  /** Changes a property of all of them at the playhead. */
  pose(property: string, change: (value: number) => number): void {
    const values = this.changed(property, change);
    if (values.length > 0) this.poser.take(`Set ${this.words()}`, values);
  }

  /** Sets several properties of all of them at the playhead at once: `what` is said of it. */
  poseTogether(what: string, values: Readonly<Record<string, number>>): void {
    const all = Object.entries(values).flatMap(([property, value]) => this.changed(property, () => value));
    if (all.length > 0) this.poser.take(`${what} of ${this.words()}`, all);
  }

  /** Shows what they would become, without keeping it; null: as they are again. */
  show(property: string | null, change: ((value: number) => number) | null): void {
    const values = property === null || change === null ? [] : this.changed(property, change);
    if (values.length === 0) this.poser.cancel();
    else this.poser.show(values);
  }

  /** Their values at rest, one a part. */
  restOf(property: string): readonly number[] {
    return this.parts().flatMap((part) => restValue(part, property) ?? []);
  }

  setRest(property: string, change: (value: number) => number): void {
    const ids = this.parts().map(({ id }) => id);
    this.studio.edit(`Rest of ${this.words()}`, (project) =>
      ids.reduce((at, id) => {
        const part = partOf(at, id);
        const rest = part ? restValue(part, property) : null;
        return rest === null ? at : setRestValue(at, id, property, change(rest));
      }, project),
    );
  }

  /** The name of the part, or how many they are. */
  words(): string {
    const parts = this.parts();
    return parts.length === 1 ? parts[0]!.name : `${parts.length} parts`;
  }
}

/** Values by property, one a part. */
type Values = ReadonlyMap<string, readonly number[]>;

/** What values are read of: another one where they are to be read anew. */
interface Source {
  readonly parts: readonly Part[];
  readonly playing: boolean;
  readonly now: Evaluated | null;
}
