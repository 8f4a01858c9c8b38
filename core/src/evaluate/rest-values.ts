/**
 * What all slots rest at. Those of a part that is added are kept beside the ones before until somebody reads them: to copy thousands of
 * numbers at each edit would cost more than the edit.
 */
export class RestValues {
  private constructor(
    readonly count: number,
    private values: Float64Array<ArrayBuffer>,
    private before: RestValues | null,
    /** The values that these are with more at the end. */
    private readonly grownFrom: object | null,
    private readonly token: object = {},
  ) {}

  static of(values: readonly number[]): RestValues {
    return new RestValues(values.length, Float64Array.from(values), null, null);
  }

  /** These values with others from some slots on. */
  with(changes: ReadonlyMap<number, readonly number[]>): RestValues {
    const next = this.flat.slice();
    for (const [slot, values] of changes) next.set(values, slot);
    return new RestValues(this.count, next, null, null);
  }

  /** These values and more. */
  longer(more: readonly number[]): RestValues {
    return new RestValues(this.count + more.length, Float64Array.from(more), this, this.token);
  }

  /** Whether these are others, with some more at the end or none. */
  growsOutOf(others: RestValues): boolean {
    return this === others || this.grownFrom === others.token;
  }

  at(slot: number): number {
    return this.flat[slot] ?? 0;
  }

  /** All of them, one number a slot. */
  get flat(): Float64Array<ArrayBuffer> {
    if (this.before) {
      const all = new Float64Array(this.count);
      all.set(this.before.flat);
      all.set(this.values, this.before.count);
      this.values = all;
      this.before = null;
    }
    return this.values;
  }
}
