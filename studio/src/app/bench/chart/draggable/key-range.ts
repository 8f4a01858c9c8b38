import { greatestOf, leastOf, curveOf, type KeyRef, type Project } from '@kaizen/core';

/**
 * The keys that a click with Shift adds: on the channels of the chosen and the clicked keys, all from the first chosen frame to
 * the clicked one.
 */
export function rangeOfKeys(
  project: Project,
  chosen: readonly KeyRef[],
  clicked: readonly KeyRef[],
): readonly KeyRef[] {
  const frames = [...chosen, ...clicked].map(({ frame }) => frame);
  const [first, last] = [leastOf(frames), greatestOf(frames)];
  const channels = new Set([...chosen, ...clicked].map(({ channel }) => channel));
  return [...channels].flatMap((channel) =>
    (curveOf(project, channel)?.keys ?? [])
      .filter(({ frame }) => frame >= first && frame <= last)
      .map(({ frame }) => ({ channel, frame })),
  );
}
