/** Node names: part ids with all but `[A-Za-z0-9_-]` made `_`, unique (contract §10). */
export function uniqueNames(ids: readonly string[]): string[] {
  const taken = new Set<string>();
  return ids.map((id) => {
    const plain = id.replace(/[^A-Za-z0-9_-]/g, '_');
    let name = plain;
    for (let n = 2; taken.has(name); n++) name = `${plain}_${n}`;
    taken.add(name);
    return name;
  });
}
