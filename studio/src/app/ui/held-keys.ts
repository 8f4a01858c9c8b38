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
  private readonly over = new AbortController();

  constructor() {
    addEventListener('keydown', (event) => this.hold(event), { capture: true, signal: this.over.signal });
  }

  release(): void {
    this.over.abort();
  }

  /** Keys that follow are meant for something else again, such as the field being wanted once more. */
  private giveUp(): void {
    this.gaveUp = true;
    this.release();
    this.onGiveUp();
  }

  private hold(event: KeyboardEvent): void {
    const { key, ctrlKey, metaKey, altKey } = event;
    if (ctrlKey || metaKey || altKey) return;
    if (key === 'Escape') this.giveUp();
    else if (key === 'Enter') this.entered = true;
    else if (key === 'Backspace') this.text = this.text.slice(0, -1);
    else if (key.length === 1) this.text += key;
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  }
}
