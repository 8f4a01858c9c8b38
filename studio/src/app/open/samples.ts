/** A sample as samples/index.json lists it. */
export interface Sample {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  /** `loop`, or how long it plays: `11.5 s`. */
  readonly length: string;
  readonly topics: readonly string[];
}

/** What was fetched of the samples, so that they are there when the server has stopped. */
const fetched = new Map<string, Promise<string>>();

function fetchOnce(name: string): Promise<string> {
  let text = fetched.get(name);
  if (!text) {
    text = fetch(`/samples/${name}`).then((response) => {
      if (!response.ok) throw new Error(`${name}: ${response.status}`);
      return response.text();
    });
    text.catch(() => fetched.delete(name));
    fetched.set(name, text);
  }
  return text;
}

export async function loadSamples(): Promise<readonly Sample[]> {
  return JSON.parse(await fetchOnce('index.json')) as readonly Sample[];
}

/** The text of a sample project. */
export function sampleText(id: string): Promise<string> {
  return fetchOnce(`${id}.kaizen.json`);
}

/** Fetches all samples. */
export async function fetchSamples(): Promise<void> {
  for (const { id } of await loadSamples()) await sampleText(id);
}
