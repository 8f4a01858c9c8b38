/**
 * Targets in an order in which every driven input comes before what it drives, or the ring that makes that
 * impossible. Iterative, so a long chain cannot overflow the stack.
 */
export function driveOrder(
  targets: readonly number[],
  inputsOf: (target: number) => readonly number[],
):
  | { readonly ok: true; readonly order: readonly number[] }
  | { readonly ok: false; readonly ring: readonly number[] } {
  const driven = new Set(targets);
  const state = new Map<number, 'open' | 'done'>();
  const order: number[] = [];
  for (const root of targets) {
    const path: { readonly target: number; readonly rest: number[] }[] = [];
    const enter = (target: number) => {
      state.set(target, 'open');
      path.push({ target, rest: inputsOf(target).filter((input) => driven.has(input)) });
    };
    if (!state.has(root)) enter(root);
    while (path.length > 0) {
      const top = path[path.length - 1]!;
      const next = top.rest.pop();
      if (next === undefined) {
        state.set(top.target, 'done');
        order.push(top.target);
        path.pop();
      } else if (state.get(next) === 'open') {
        const ring = path.map((step) => step.target);
        return { ok: false, ring: [...ring.slice(ring.indexOf(next)), next].reverse() };
      } else if (!state.has(next)) {
        enter(next);
      }
    }
  }
  return { ok: true, order };
}
