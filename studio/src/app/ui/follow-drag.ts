/**
 * Follows the pointer from a press on: `move` for each of its moves, then `finish` once, with true at its release and false where Esc
 * gave the drag up. That Esc means nothing else.
 */
export function followDrag(move: (event: PointerEvent) => void, finish: (kept: boolean) => void): void {
  const end = (kept: boolean) => {
    removeEventListener('pointermove', move);
    removeEventListener('pointerup', up);
    removeEventListener('keydown', escape, true);
    finish(kept);
  };
  const up = () => end(true);
  const escape = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    end(false);
  };
  addEventListener('pointermove', move);
  addEventListener('pointerup', up);
  addEventListener('keydown', escape, true);
}
