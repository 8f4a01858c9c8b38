/**
 * Keys that are pressed while the field that they are meant for is still on its way: they are held back from whatever else would
 * answer to them, and given to the field once it is there.
 */
export class HeldKeys {
  /** What was typed. */
  text = '';
  /** Esc was pressed: the field is not wanted any more. */
  gaveUp = false;
  /** Called as Esc is pressed: what was opened for the field goes at once, so that the next key can want it again. */
  onGiveUp: () => void = () => undefined;
  /** Enter was pressed. */
  entered = false;
  /** What was pressed after Enter: it is meant for what Enter brings. */
  private readonly later: KeyboardEvent[] = [];
  private readonly over = new AbortController();

  constructor() {
    addEventListener('keydown', (event) => this.hold(event), { capture: true, signal: this.over.signal });
  }

  release(): void {
    this.over.abort();
  }

  /** Presses once more, where the focus is now, what was pressed after Enter. */
  pressLater(): void {
    for (const event of this.later) {
      const { key, code, shiftKey, ctrlKey, altKey, metaKey } = event;
      const again = { key, code, shiftKey, ctrlKey, altKey, metaKey, bubbles: true, cancelable: true };
      (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', again));
    }
  }

  /** Keys that follow are meant for something else again, such as the field being wanted once more. */
  private giveUp(): void {
    this.gaveUp = true;
    this.release();
    this.onGiveUp();
  }

  private hold(event: KeyboardEvent): void {
    const { key, ctrlKey, metaKey, altKey } = event;
    const combined = ctrlKey || metaKey || altKey;
    if (combined && !this.entered) return;
    if (this.entered) this.later.push(event);
    else if (key === 'Escape') this.giveUp();
    else if (key === 'Enter') this.entered = true;
    else if (key === 'Backspace') this.text = this.text.slice(0, -1);
    else if (key.length === 1) this.text += key;
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  }
}
