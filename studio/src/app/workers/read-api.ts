import type { AssetBytes, Brought, DocumentPiece, ModelFiles, Problem } from '@kaizen/core';

/**
 * How reading a project ended: with the bytes of its models and sounds; its pieces, which only name them, have been sent by then. Where
 * it is not ok, what was told is worth nothing.
 */
export type ProjectRead =
  | { readonly ok: true; readonly bytes: AssetBytes }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** How reading a model ended: with parts that only name its bytes. */
export type ModelRead =
  | { readonly ok: true; readonly brought: Brought; readonly bytes: AssetBytes }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** A model with all files beside it that were dropped with it, by their paths. */
export interface ModelBytes extends Pick<ModelFiles, 'name' | 'bytes'> {
  readonly beside: readonly { readonly name: string; readonly bytes: Uint8Array }[];
  readonly folder: string;
}

/** Reading and checking of what the user brings, in a worker. */
export interface ReadApi {
  /**
   * Reads a `.kaizen.json` or `.kaizen.zip` and tells its pieces, one after the other, as soon as each value in it is of the kind that
   * belongs there, with the last that it is; whether they go together it finds meanwhile. `progress` is told a share from 0 to 1.
   */
  project(
    bytes: Uint8Array,
    kind: 'json' | 'zip',
    piece: (piece: DocumentPiece, isLast: boolean) => void | Promise<void>,
    progress: (share: number) => void | Promise<void>,
  ): ProjectRead;
  /** Reads a model. `sha256` finds the hash of its bytes elsewhere. */
  model(
    model: ModelBytes,
    progress: (share: number) => void | Promise<void>,
    sha256?: () => Promise<string>,
  ): Promise<ModelRead>;
}
