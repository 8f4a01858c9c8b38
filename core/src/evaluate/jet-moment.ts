import type { Jet } from '../law';
import { addJets } from '../law';
import type { JetReader, Reader } from '../drive';
import type { OtherFrames } from './moment';

/** What the rates of driven channels ask of their program besides. */
export interface JetFrames extends OtherFrames {
  channelJet(slot: number, frame: number): Jet;
  /** A function of the reader of a node, at a frame at which all that the node reads is filled. */
  readingAt(node: number, frame: number, value: (read: Reader) => number): number;
  reader(): Reader;
}

/** Frames between the places at which a function is read for its differences; none crosses a whole frame. */
const STEP = 1 / 32;

/** Value and rates of driven channels at one frame, each found once. */
export class JetMoment {
  private readonly slots = new Map<number, Jet>();
  private readonly mechanisms = new Map<number, readonly Jet[]>();

  constructor(
    private readonly program: JetFrames,
    private readonly frame: number,
  ) {}

  /** The jet of a driven slot; what it reads is found first, without calls within calls. */
  slot(slot: number): Jet {
    const { graph } = this.program;
    const first = graph.partRoom;
    const path = [graph.nodeOfSlot.get(slot)!];
    while (path.length > 0) {
      const node = path[path.length - 1]!;
      const before = path.length;
      if (this.knows(node)) {
        path.pop();
        continue;
      }
      // Matrices are read by differences: what lies behind them needs no jets.
      for (const read of graph.reads.get(node) ?? []) if (read >= first && !this.knows(read)) path.push(read);
      if (path.length > before) continue;
      path.pop();
      this.find(node);
    }
    return this.slots.get(slot)!;
  }

  private knows(node: number): boolean {
    const { graph } = this.program;
    const place = node - graph.partRoom;
    const slots = graph.drivenSlots.length;
    return place < slots ? this.slots.has(graph.drivenSlots[place]!) : this.mechanisms.has(place - slots);
  }

  private find(node: number): void {
    const { graph, base } = this.program;
    const place = node - graph.partRoom;
    if (place >= graph.drivenSlots.length) {
      const number = place - graph.drivenSlots.length;
      const { mechanism, slots } = graph.mechanisms[number]!;
      this.mechanisms.set(number, mechanism.jets(slots.map((slot) => this.channel(slot))));
      return;
    }
    const slot = graph.drivenSlots[place]!;
    let jet = base.jet(slot, this.frame);
    for (const number of graph.driversOf[place]!) {
      const driver = graph.drivers[number]!;
      const result = driver.jet(this.reader(node), graph.mechanismOf[number]!);
      const next = driver.add ? addJets(jet, result) : result;
      if (Number.isFinite(next[0])) jet = next;
    }
    this.slots.set(slot, [this.program.channelValue(slot, this.frame), jet[1], jet[2], jet[3]]);
  }

  private channel(slot: number): Jet {
    return this.slots.get(slot) ?? this.program.base.jet(slot, this.frame);
  }

  private reader(node: number): JetReader {
    const { program, frame } = this;
    return {
      frame,
      secondsPerFrame: program.secondsPerFrame,
      channel: (slot) => this.channel(slot),
      channelAt: (slot, at) => program.channelJet(slot, at),
      solved: (mechanism, output) => this.mechanisms.get(mechanism)![output]!,
      differences: (value) =>
        differences((at) => program.readingAt(node, at, value), frame, stepWithin(frame)),
      kept: (owner, make) => program.kept(owner, () => make(program.reader())),
    };
  }
}

/** A step with which no place lies beyond the next whole frame, where springs and keys bend. */
function stepWithin(frame: number): number {
  const room = Math.floor(frame) + 1 - frame;
  return Math.min(STEP, room / (PLACES - 1));
}

const PLACES = 7;

/** Value and three derivatives just after a place, from seven values (Fornberg 1988). */
function differences(value: (frame: number) => number, frame: number, step: number): Jet {
  const values = Array.from({ length: PLACES }, (_, i) => value(frame + i * step));
  const derivative = (order: number) =>
    values.reduce((sum, each, i) => sum + WEIGHTS[order]![i]! * each, 0) / step ** order;
  return [values[0]!, derivative(1), derivative(2), derivative(3)];
}

const WEIGHTS = forwardWeights(PLACES, 3);

/** Weights of equally spaced places for the derivatives at the first one (Fornberg's recurrence). */
function forwardWeights(count: number, orders: number): readonly (readonly number[])[] {
  const c = Array.from({ length: orders + 1 }, () => new Array<number>(count).fill(0));
  c[0]![0] = 1;
  let c1 = 1;
  for (let i = 1; i < count; i++) {
    let c2 = 1;
    for (let j = 0; j < i; j++) {
      const c3 = i - j;
      c2 *= c3;
      if (j === i - 1)
        for (let k = Math.min(i, orders); k >= 0; k--)
          c[k]![i] = (c1 * ((k > 0 ? k * c[k - 1]![i - 1]! : 0) - (i - 1) * c[k]![i - 1]!)) / c2;
      for (let k = Math.min(i, orders); k >= 0; k--)
        c[k]![j] = (i * c[k]![j]! - (k > 0 ? k * c[k - 1]![j]! : 0)) / c3;
    }
    c1 = c2;
  }
  return c;
}
