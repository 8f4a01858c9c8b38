const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

/** How long ago a time was, in words as short as they can be: `2 s ago`, `5 min ago`, `3 h ago`, `12 March`. */
export function agoText(time: number, now: number): string {
  const passed = Math.max(0, now - time);
  if (passed < MINUTE) return `${Math.floor(passed / 1000)} s ago`;
  if (passed < HOUR) return `${Math.floor(passed / MINUTE)} min ago`;
  if (passed < 24 * HOUR) return `${Math.floor(passed / HOUR)} h ago`;
  return new Date(time).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
}
