import { OverlayKeyboardDispatcher, type OverlayRef } from '@angular/cdk/overlay';
import { Injectable } from '@angular/core';
import { TOOLTIP_PANEL_CLASS } from '@angular/material/tooltip';
import type { Subject } from 'rxjs';

/** Escape takes a tooltip away and goes on to what it was pressed for: a dialog, an edit that is shown. */
@Injectable()
export class KeysPastTooltips extends OverlayKeyboardDispatcher {
  override canReceiveEvent<T>(overlay: OverlayRef, event: Event, stream: Subject<T>): boolean {
    if (!overlay.overlayElement.classList.contains(TOOLTIP_PANEL_CLASS))
      return super.canReceiveEvent(overlay, event, stream);
    if (event instanceof KeyboardEvent && event.key === 'Escape') overlay.detach();
    return false;
  }
}
