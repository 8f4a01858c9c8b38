import type { Part } from '@kaizen/core';

/** Parts with names that tell them apart: those that share one have what they hang on beside it, or their id. */
export function namedApart(
  parts: readonly Part[],
): readonly { readonly id: string; readonly name: string }[] {
  const names = new Map(parts.map(({ id, name }) => [id, name]));
  const count = new Map<string, number>();
  for (const { name } of parts) count.set(name, (count.get(name) ?? 0) + 1);
  const seen = new Set<string>();
  return parts.map(({ id, name, parent }) => {
    if (count.get(name) === 1) return { id, name };
    const below = `${name}, on ${parent === null ? 'the scene' : (names.get(parent) ?? parent)}`;
    const apart = seen.has(below) ? `${name} (${id})` : below;
    seen.add(below);
    return { id, name: apart };
  });
}
