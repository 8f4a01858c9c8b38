import { computed, Injectable, inject } from '@angular/core';
import {
  curveOf,
  greatestChange,
  ownerOf,
  readLanes,
  weightChannel,
  type Curve,
  type Lane,
  type Treatment,
} from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { decimalsOf, shownNumber, signedNumber } from '../../../ui/amount';
import { channelLabel } from '../../stage/channel-label';
import { namedChannels } from '../../stage/picking';
import { ChartModel } from '../../plot/chart-model';
import { Proposals } from '../../stage/proposals';
import { Stage } from '../../stage/stage';
import { TREATMENT_LABELS, treatmentAmount } from '../treatment-fields';

/** How high a lane is: idle, chosen, muted. */
const HEIGHTS = { idle: 31, chosen: 46, muted: 28 } as const;

/** A treatment as a lane under its curve: where it lies, and what is told of it. */
export interface LaneShown {
  readonly index: number;
  readonly treatment: Treatment;
  readonly lane: Lane;
  /** The name of its weight as a curve. */
  readonly weight: string;
  readonly name: string;
  readonly amount: string;
  readonly state: keyof typeof HEIGHTS;
  readonly isChosen: boolean;
  /** From the top of the first lane, in pixels. */
  readonly top: number;
  readonly height: number;
  /** The greatest change at full weight over the shot, to which its hairs are measured. */
  readonly most: number;
}

/** Which curve shows its treatments as lanes under the plot, and how they lie there. */
@Injectable({ providedIn: 'root' })
export class Lanes {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  private readonly model = inject(ChartModel);

  /** The one curve that is meant and has treatments: of the chosen channel, else the only such one that is drawn. */
  readonly curve = computed((): Curve | null => {
    const project = this.stage.shown();
    const bench = this.proposals.bench();
    if (!project || !bench.shaping.lanes) return null;
    const named = [...new Set(namedChannels(bench).map(ownerOf))];
    const meant = named.length > 0 ? named : [...new Set(this.model.plotted().map(ownerOf))];
    const treated = meant.flatMap((channel) => {
      const curve = curveOf(project, channel);
      return curve && curve.treatments.length > 0 ? [curve] : [];
    });
    const ofLane = treated.find(({ channel }) => bench.lane !== null && ownerOf(bench.lane) === channel);
    return ofLane ?? (treated.length === 1 ? treated[0]! : null);
  });

  readonly label = computed(() => {
    const [project, curve] = [this.stage.shown(), this.curve()];
    return project && curve ? channelLabel(project, curve.channel) : null;
  });
  private readonly shownValue = computed(() => {
    const decimals = decimalsOf(this.label()?.unit ?? '');
    return (value: number) => shownNumber(value, decimals);
  });
  readonly locked = computed(() => this.studio.readOnly() || (this.curve()?.locked ?? true));

  readonly reading = computed(() => {
    const [project, curve] = [this.stage.shown(), this.curve()];
    return project && curve ? readLanes(project, curve) : null;
  });

  readonly lanes = computed((): readonly LaneShown[] => {
    const [project, curve, reading] = [this.stage.shown(), this.curve(), this.reading()];
    if (!project || !curve || !reading) return [];
    const chosen = this.proposals.bench().lane;
    let top = 0;
    return curve.treatments.map((treatment, index) => {
      const weight = weightChannel(curve.channel, index);
      const state = treatment.muted ? 'muted' : weight === chosen ? 'chosen' : 'idle';
      const height = HEIGHTS[state];
      top += height;
      const lane = reading.lanes[index]!;
      return {
        index,
        treatment,
        lane,
        weight,
        name: TREATMENT_LABELS[treatment.kind],
        amount: treatmentAmount(treatment, this.label()?.unit ?? '', this.shownValue()),
        state,
        isChosen: weight === chosen,
        top: top - height,
        height,
        most: greatestChange(lane, project.range.start, project.range.end),
      };
    });
  });

  readonly height = computed(() => this.lanes().reduce((sum, { height }) => sum + height, 0));

  /** The values at the playhead in words: as keyed, after the chosen lane, and what comes out. */
  readonly legend = computed(() => {
    const reading = this.reading();
    if (!reading) return [];
    const frame = this.stage.frame();
    const shown = this.shownValue();
    const chosen = this.lanes().find(({ isChosen }) => isChosen);
    const last = reading.lanes.length - 1;
    return [
      { name: 'keyed', value: shown(reading.keyed(frame)) },
      ...(chosen && chosen.index < last
        ? [{ name: `after ${chosen.name}`, value: shown(reading.after(chosen.index, frame)) }]
        : []),
      { name: 'result', value: shown(reading.after(last, frame)) },
    ];
  });

  /** A lane's change with its sign, as its tag at the playhead tells it. */
  change(lane: LaneShown, frame: number): string {
    const unit = this.label()?.unit ?? '';
    return `${signedNumber(lane.lane.change(frame), decimalsOf(unit))}${unit === '°' ? unit : unit && ` ${unit}`}`;
  }

  /** The lane at a height of the list, in pixels. */
  laneAt(y: number): LaneShown | undefined {
    return this.lanes().find(({ top, height }) => y >= top && y < top + height);
  }

  choose(lane: LaneShown | null): void {
    this.studio.set({ lane: lane?.weight ?? null, ...(lane ? { sheet: 'curve' } : {}) });
  }
}
