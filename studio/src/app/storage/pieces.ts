import type { Project } from '@kaizen/core';
import type { Snapshot } from '../state/document';

/**
 * A project cut into pieces: each part, curve, driver, asset by itself under a key, and a head that orders them. A save
 * writes the pieces that are other objects than last time, and the head only where an order, a name or a field of the
 * project itself changed.
 */
export interface Piece {
  readonly key: string;
  readonly value: unknown;
}

const LISTS = [
  'parts',
  'drivers',
  'constraints',
  'interlocks',
  'arrangement',
  'assets',
  'markers',
  'sounds',
  'poses',
] as const satisfies readonly (keyof Project)[];
type Listed = (typeof LISTS)[number];

/** Everything of a project but its pieces, which are named in order. */
export interface Head {
  readonly fields: Readonly<Record<string, unknown>>;
  readonly lists: Readonly<Record<Listed, readonly string[]>>;
  readonly clips: readonly {
    readonly fields: Readonly<Record<string, unknown>>;
    readonly curves: readonly string[];
    readonly order?: readonly string[];
  }[];
  readonly loose: Snapshot['loose'];
  /** The project's fields in their order, so that its file is the same text again. Left out by what an older Kaizen kept. */
  readonly order?: readonly string[];
}

export interface Changes {
  /** Null where the head that is stored still holds. */
  readonly head: Head | null;
  readonly written: readonly Piece[];
  readonly removed: readonly string[];
}

interface PieceList {
  readonly items: readonly object[];
  readonly key: (item: object) => string;
}

function listsOf(project: Project): PieceList[] {
  return [
    ...LISTS.map((list): PieceList => ({
      items: project[list],
      key: (item) => `${list}:${(item as { id: string }).id}`,
    })),
    ...project.clips.map((clip): PieceList => ({
      items: clip.curves,
      key: (item) => `curves:${clip.id}/${(item as { channel: string }).channel}`,
    })),
  ];
}

/** What to write so that the store holds `next`, when it holds `last` (or nothing). */
export function changesBetween(last: Snapshot | null, next: Snapshot): Changes {
  const after = listsOf(next.project);
  const before = last ? listsOf(last.project) : [];
  const written: Piece[] = [];
  const removed: string[] = [];
  let reordered = last === null || before.length !== after.length;
  if (!reordered)
    reordered = after.map((list, i) => replaceInPlace(before[i]!, list, written)).includes(false);
  if (reordered) {
    written.length = 0;
    const old = new Map(before.flatMap(({ items, key }) => items.map((item) => [key(item), item])));
    for (const { items, key } of after) {
      for (const item of items) {
        const name = key(item);
        if (old.get(name) !== item) written.push({ key: name, value: item });
        old.delete(name);
      }
    }
    removed.push(...old.keys());
  }
  const same =
    last !== null && !reordered && last.loose === next.loose && sameFields(last.project, next.project);
  return { head: same ? null : headOf(next, after), written, removed };
}

/** Collects the items that changed where they stand; false where one came, went or has another key. */
function replaceInPlace(before: PieceList, after: PieceList, written: Piece[]): boolean {
  if (before.items === after.items) return true;
  if (before.items.length !== after.items.length) return false;
  for (let i = 0; i < after.items.length; i++) {
    const item = after.items[i]!;
    if (item === before.items[i]) continue;
    const key = after.key(item);
    if (key !== before.key(before.items[i]!)) return false;
    written.push({ key, value: item });
  }
  return true;
}

function sameFields(a: Project, b: Project): boolean {
  const [was, is] = [fieldsOf(a), fieldsOf(b)];
  const names = Object.keys(is);
  if (names.length !== Object.keys(was).length || names.some((name) => was[name] !== is[name])) return false;
  return b.clips.every((clip, i) => clip.name === a.clips[i]?.name);
}

function fieldsOf(project: Project): Record<string, unknown> {
  const fields: Record<string, unknown> = { ...project };
  for (const list of [...LISTS, 'clips']) delete fields[list];
  return fields;
}

function headOf({ project, loose }: Snapshot, lists: readonly PieceList[]): Head {
  const names = lists.map(({ items, key }) => items.map(key));
  return {
    fields: fieldsOf(project),
    lists: Object.fromEntries(LISTS.map((list, i) => [list, names[i]])) as unknown as Head['lists'],
    clips: project.clips.map((whole, i) => {
      const { curves: _curves, ...fields } = whole;
      return { fields, curves: names[LISTS.length + i] ?? [], order: Object.keys(whole) };
    }),
    loose,
    order: Object.keys(project),
  };
}

/** The head of a snapshot, as a save would write it. */
export function headWithLists(snapshot: Snapshot): Head {
  return headOf(snapshot, listsOf(snapshot.project));
}

/** A snapshot's pieces by their keys; only some of them where they are asked for. */
export function piecesByKey({ project }: Snapshot, only?: readonly string[]): Map<string, unknown> {
  const wanted = only && new Set(only);
  const pieces = new Map<string, unknown>();
  for (const { items, key } of listsOf(project))
    for (const item of items) {
      const name = key(item);
      if (!wanted || wanted.has(name)) pieces.set(name, item);
    }
  return pieces;
}

/** Puts a project together again, or null where a piece is missing. */
export function joinPieces(head: Head, pieces: ReadonlyMap<string, unknown>): Snapshot | null {
  let whole = true;
  const take = (keys: readonly string[]) =>
    keys.map((key) => {
      const piece = pieces.get(key);
      if (piece === undefined) whole = false;
      return piece;
    });
  const project = inOrder(head.order, {
    ...head.fields,
    ...Object.fromEntries(LISTS.map((list) => [list, take(head.lists[list] ?? [])])),
    clips: head.clips.map(({ fields, curves, order }) => inOrder(order, { ...fields, curves: take(curves) })),
  }) as unknown as Project;
  return whole ? { project, loose: head.loose } : null;
}

/** A snapshot with what changed since; null where a piece is missing then. */
export function withChanges(snapshot: Snapshot, { head, written, removed }: Changes): Snapshot | null {
  const pieces = piecesByKey(snapshot);
  for (const key of removed) pieces.delete(key);
  for (const { key, value } of written) pieces.set(key, value);
  return joinPieces(head ?? headWithLists(snapshot), pieces);
}

/** An object with its fields in an order; those that the order does not name come last. */
function inOrder(
  order: readonly string[] | undefined,
  fields: Record<string, unknown>,
): Record<string, unknown> {
  if (!order) return fields;
  const known = order.filter((name) => Object.hasOwn(fields, name));
  return { ...Object.fromEntries(known.map((name) => [name, fields[name]])), ...fields };
}
