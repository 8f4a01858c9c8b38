/** Where a command writes: whole lines to standard output and standard error. */
export interface Io {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

export interface Command {
  readonly usage: string;
  /** Runs and gives the exit code; throws UsageError (2) or FileError (1). */
  readonly run: (argv: readonly string[], io: Io) => number;
}
