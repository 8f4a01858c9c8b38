/** One of a few to choose from, as lists and segments show it. */
export interface Option<T> {
  readonly value: T;
  readonly label: string;
  readonly tip?: string;
}

/** The options for a table of labels, in its order. */
export function optionsOf<T extends string>(labels: Readonly<Record<T, string>>): readonly Option<T>[] {
  return (Object.keys(labels) as T[]).map((value) => ({ value, label: labels[value] }));
}
