/** What this browser remembers besides projects: the theme, sizes of panels, shortcuts. Provided by what keeps projects. */
export abstract class Settings {
  /** A setting; nothing where there is none, or where nothing can be kept. */
  abstract setting<T>(name: string): Promise<T | undefined>;
  abstract putSetting(name: string, value: unknown): Promise<void>;
}
