import { Injectable, signal } from '@angular/core';
import type { Matrix4 } from 'three';
import { whenDrawn } from '../../ui/when-drawn';

export type NamedView = 'side-on' | 'side' | 'front' | 'top';

/** In place of a camera's id: whichever camera shows the shot at each frame. No id has a bracket. */
export const THE_SHOT = '(shot)';

interface Attached {
  show(view: NamedView): void;
  fit(all: boolean): void;
  bring(parts: readonly string[]): void;
  picture(size: { readonly width: number; readonly height: number }): string | null;
  /** Draws what the shot shows, at a size; what is drawn is handed over once it is finished, null where there is no camera. */
  shotDrawn(
    size: { readonly width: number; readonly height: number },
    finished: (drawn: OffscreenCanvas | null) => void,
  ): void;
  /** The matrix of the camera that looks on. */
  looks(): Matrix4 | null;
  /** Where a place of the world is in the view, in pixels; null behind the eye. */
  onScreen(place: readonly [number, number, number]): { readonly x: number; readonly y: number } | null;
}

/** What commands and buttons may ask of the view. */
@Injectable({ providedIn: 'root' })
export class ViewControl {
  /** The id of the camera part looked through, `THE_SHOT`, or null for the working view. */
  readonly shot = signal<string | null>(null);
  /** Which project the view stands before, and whether it has found its place. */
  project: string | undefined;
  placed = false;
  /** Counts the frames that the scene was put into: what draws the scene goes by it. */
  readonly frames = signal(0);
  private attached: Attached | null = null;

  attach(view: Attached | null): void {
    this.attached = view;
    this.project = undefined;
  }

  show(view: NamedView): void {
    this.shot.set(null);
    this.attached?.show(view);
  }

  fit(all: boolean): void {
    this.shot.set(null);
    this.attached?.fit(all);
  }

  /** Brings parts that were just added into the picture, once they are drawn. */
  bring(parts: readonly string[]): void {
    const view = this.attached;
    if (view) whenDrawn(() => view.bring(parts));
  }

  /** A small picture of what the view shows, as a data URI; null where there is no view. */
  picture(size: { readonly width: number; readonly height: number }): string | null {
    return this.attached?.picture(size) ?? null;
  }

  /** Has the view draw what the shot shows; false where there is no view. */
  shotDrawn(
    size: { readonly width: number; readonly height: number },
    finished: (drawn: OffscreenCanvas | null) => void,
  ): boolean {
    this.attached?.shotDrawn(size, finished);
    return this.attached !== null;
  }

  looks(): Matrix4 | null {
    return this.attached?.looks() ?? null;
  }

  onScreen(place: readonly [number, number, number]): { readonly x: number; readonly y: number } | null {
    return this.attached?.onScreen(place) ?? null;
  }
}
