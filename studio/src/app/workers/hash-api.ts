/** Hashing of what the user brings, in a worker of its own: of a big model it takes as long as all other reading. */
export interface HashApi {
  sha256(bytes: Uint8Array): Promise<string>;
}
