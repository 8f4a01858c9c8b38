import { effect, Injectable, inject, signal } from '@angular/core';
import { Keeper } from '../storage/keeper';

export type ThemeName = 'day' | 'night';

/** Day and night, remembered; at first whatever the system prefers. */
@Injectable({ providedIn: 'root' })
export class Theme {
  private readonly keeper = inject(Keeper);
  readonly name = signal<ThemeName>(matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day');

  constructor() {
    effect(() => (document.documentElement.dataset['theme'] = this.name()));
    void this.keeper.setting<ThemeName>('theme').then((name) => name && this.name.set(name));
  }

  toggle(): void {
    this.name.update((name) => (name === 'day' ? 'night' : 'day'));
    void this.keeper.putSetting('theme', this.name());
  }
}

/** The value of a colour token in the theme that shows, as `#rrggbb`. */
export function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
}
