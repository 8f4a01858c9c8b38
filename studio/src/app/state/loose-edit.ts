/** A changed value not yet keyed: it waits in the tray. */
export interface LooseEdit {
  readonly channel: string;
  readonly frame: number;
  readonly value: number;
  /** The value the channel had there. */
  readonly was: number;
}
