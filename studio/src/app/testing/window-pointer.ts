/** The window’s pointer and its Esc, for what follows a drag: call it before the drag begins. */
export function windowPointer() {
  const listeners = new Map<string, (event: object) => void>();
  Object.assign(globalThis, {
    addEventListener: (name: string, listener: (event: object) => void) => listeners.set(name, listener),
  });
  const tell = (name: string, event: object) => {
    const listener = listeners.get(name);
    if (!listener) throw new Error(`nothing follows ${name}`);
    listener(event);
  };
  return {
    move: (event: object) => tell('pointermove', event),
    up: (event: object = {}) => tell('pointerup', event),
    escape: () =>
      tell('keydown', { key: 'Escape', stopPropagation: () => undefined, preventDefault: () => undefined }),
  };
}
