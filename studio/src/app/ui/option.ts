/** One of a few to choose from, as lists and segments show it. */
export interface Option<T> {
  readonly value: T;
  readonly label: string;
  readonly tip?: string;
  /** What it has in common with those beside it in a list. */
  readonly group?: string;
}

/** The options for a table of labels, in its order; with the group of each where there is a table of groups. */
export function optionsOf<T extends string>(
  labels: Readonly<Record<T, string>>,
  groups?: Readonly<Record<T, string>>,
): readonly Option<T>[] {
  return (Object.keys(labels) as T[]).map((value) => ({
    value,
    label: labels[value],
    ...(groups && { group: groups[value] }),
  }));
}
