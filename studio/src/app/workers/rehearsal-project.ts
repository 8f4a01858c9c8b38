const [PARTS, KEYS] = [60, 40];
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'rotate.x', 'rotate.y', 'rotate.z'];

/** The text of a made-up project of boxes with some thousand keys. */
export function rehearsalProject(): string {
  const ids = Array.from({ length: PARTS }, (_, i) => `box-${i}`);
  const keys = Array.from({ length: KEYS }, (_, i) => ({ frame: 6 * i, value: i / 7 }));
  return JSON.stringify({
    format: 'kaizen',
    version: 1,
    id: 'rehearsal',
    name: 'Rehearsal',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 240 },
    parts: ids.map((id) => ({
      id,
      name: id,
      kind: 'mesh',
      geometry: { shape: 'box', size: [1, 1, 1] },
      rest: { translate: [0, 1, 0] },
    })),
    clips: [
      {
        id: 'main',
        curves: ids.flatMap((id) => PROPERTIES.map((property) => ({ channel: `${id}/${property}`, keys }))),
      },
    ],
    activeClip: 'main',
  });
}
