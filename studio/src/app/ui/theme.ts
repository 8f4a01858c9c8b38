import { effect, Injectable, inject, signal } from '@angular/core';
import { Settings } from './settings';

export type ThemeName = 'day' | 'night';

/** Day and night, remembered; at first whatever the system prefers. */
@Injectable({ providedIn: 'root' })
export class Theme {
  private readonly settings = inject(Settings);
  readonly name = signal<ThemeName>(matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day');

  constructor() {
    effect(() => (document.documentElement.dataset['theme'] = this.name()));
    void this.settings.setting<ThemeName>('theme').then((name) => name && this.name.set(name));
  }

  toggle(): void {
    this.name.update((name) => (name === 'day' ? 'night' : 'day'));
    void this.settings.putSetting('theme', this.name());
  }
}

/** The value of a colour token in the theme that shows, as `#rrggbb`. */
export function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
}
