import { extrude, standUp } from './extrude';
import type { TriangleMesh } from './mesh';

/**
 * A spur gear about +Y with straight-flanked teeth: pitch radius teeth·module/2, addendum one module, dedendum
 * 1.25 modules (ISO 53 proportions), tooth half as thick as the pitch at the pitch circle.
 */
export function gear(teeth: number, module: number, width: number, bore = 0): TriangleMesh {
  const pitch = (teeth * module) / 2;
  const tip = pitch + module;
  const root = Math.max(pitch - 1.25 * module, pitch * 0.2);
  const outline: [number, number][] = [];
  for (let tooth = 0; tooth < teeth; tooth++) {
    for (const [radius, share] of [
      [root, -0.36],
      [tip, -0.13],
      [tip, 0.13],
      [root, 0.36],
    ] as const) {
      const angle = (2 * Math.PI * (tooth + share)) / teeth;
      outline.push([radius * Math.cos(angle), radius * Math.sin(angle)]);
    }
  }
  const hole = (i: number): [number, number] => [
    (bore / 2) * Math.cos((Math.PI * i) / 12),
    (bore / 2) * Math.sin((Math.PI * i) / 12),
  ];
  const holes = bore > 0 && bore / 2 < root ? [Array.from({ length: 24 }, (_, i) => hole(i))] : [];
  return standUp(extrude(outline, width, holes));
}
