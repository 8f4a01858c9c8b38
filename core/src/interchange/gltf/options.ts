export interface GltfOptions {
  /** Plain sampled keys, straight between, that every reader shows alike. */
  readonly bake?: boolean;
  readonly start?: number;
  readonly end?: number;
  /** The first animation shows this clip alone. */
  readonly clip?: string;
  /** Share of a track's range that may be off; default 1e-4. Turns get 0.01° at that. */
  readonly tolerance?: number;
  /** Is told, in a sentence each, what of the shot can't be said in glTF. */
  readonly tell?: (sentence: string) => void;
}
