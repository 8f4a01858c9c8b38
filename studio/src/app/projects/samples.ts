/** A sample as samples/index.json lists it. */
export interface Sample {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  /** `loop`, or how long it plays: `11.5 s`. */
  readonly length: string;
  readonly topics: readonly string[];
}

export async function loadSamples(): Promise<readonly Sample[]> {
  const response = await fetch('/samples/index.json');
  return response.ok ? ((await response.json()) as readonly Sample[]) : [];
}
