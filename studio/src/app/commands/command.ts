/** Something the user can do: one registry feeds menus, palette, keys and help. */
export interface Command {
  readonly id: string;
  readonly label: string;
  readonly group:
    'Play' | 'Keys' | 'Shape' | 'Time' | 'Select' | 'View' | 'Chart' | 'Pose' | 'Project' | 'Help';
  /** Default shortcuts, the first one shown. */
  readonly shortcuts?: readonly string[];
  /** Whether it can run now; left out: always. */
  readonly when?: (item?: unknown) => boolean;
  /** Of what is switched on and off: whether it is on. */
  readonly on?: (item?: unknown) => boolean;
  /** `item` is what a button tells: what it is about, or how it is meant; keys, palette and help tell nothing. */
  readonly run: (item?: unknown) => void;
}

/** What is done to one thing of a list: a treatment, a marker, a pose. */
export interface ItemCommand<T> extends Omit<Command, 'when' | 'on' | 'run'> {
  /** The one that is meant where no button says which; null: none. */
  readonly meant: () => T | null;
  readonly when?: (item: T) => boolean;
  readonly on?: (item: T) => boolean;
  readonly run: (item: T) => void;
}

/** A command about one thing of a list: a button says which, keys and palette do it to the one that is meant. */
export function onItem<T>({ meant, when, on, run, ...command }: ItemCommand<T>): Command {
  const about = (item: unknown) => (item === undefined ? meant() : (item as T));
  return {
    ...command,
    when: (item) => {
      const one = about(item);
      return one !== null && (when?.(one) ?? true);
    },
    ...(on
      ? {
          on: (item: unknown) => {
            const one = about(item);
            return one !== null && on(one);
          },
        }
      : {}),
    run: (item) => {
      const one = about(item);
      if (one !== null) run(one);
    },
  };
}

/** A command that switches something on and off. */
export function switching(
  command: Omit<Command, 'run' | 'on'>,
  on: () => boolean,
  set: (on: boolean) => void,
): Command {
  return { ...command, on, run: () => set(!on()) };
}
