/** Where a command reads and writes: lines to standard output and standard error, and whole streams. */
export interface Io {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** All of standard input. */
  readonly input: () => Uint8Array;
  /** Bytes to standard output as they are. */
  readonly outBytes: (bytes: Uint8Array) => void;
}

export interface Command {
  readonly usage: string;
  /** What it does and what its options mean, for `--help`. */
  readonly about: readonly string[];
  /** Runs and gives the exit code; throws UsageError (2) or FileError (1). */
  readonly run: (argv: readonly string[], io: Io) => Promise<number>;
}
