/** Something the user can do: one registry feeds menus, palette, keys and help. */
export interface Command {
  readonly id: string;
  readonly label: string;
  readonly group:
    'Play' | 'Keys' | 'Shape' | 'Time' | 'Select' | 'View' | 'Chart' | 'Pose' | 'Project' | 'Help';
  /** Default shortcuts, the first one shown. */
  readonly shortcuts?: readonly string[];
  /** Whether it can run now; left out: always. */
  readonly when?: () => boolean;
  /** Of what is switched on and off: whether it is on. */
  readonly on?: () => boolean;
  readonly run: () => void;
}

/** A command that switches something on and off. */
export function switching(
  command: Omit<Command, 'run' | 'on'>,
  on: () => boolean,
  set: (on: boolean) => void,
): Command {
  return { ...command, on, run: () => set(!on()) };
}
