import { Injectable, inject } from '@angular/core';
import { CAM_LAWS, EASE_FAMILIES, setLeg, SIDE_MODES, type Leg } from '@kaizen/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { EASE_GROUPS, EASE_LABELS, LAW_LABELS, LEG_LABELS, legText, SIDE_LABELS } from '../stage/words';
import { ShapeTools } from './shape-tools';

/** How the curve meets the chosen keys, and what fills the legs after them, each by a command of its own. */
@Injectable({ providedIn: 'root' })
export class SideCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);
  private readonly hasKeys = () => !this.studio.readOnly() && this.studio.bench().keys.length > 0;

  list(): readonly Command[] {
    return [...this.sides(), ...this.legs()];
  }

  private sides(): Command[] {
    return SIDE_MODES.filter((mode) => mode !== 'set').flatMap((mode) => {
      const word = SIDE_LABELS[mode];
      const side = (name: 'both' | 'in' | 'out', label: string): Command => ({
        id: `side.${mode}${name === 'both' ? '' : `-${name}`}`,
        label,
        group: 'Shape',
        when: this.hasKeys,
        run: () => this.tools.setSides('all', name, mode),
      });
      return [
        side('both', `${word} sides at the chosen keys`),
        side('in', `Arrive ${word.toLowerCase()} at the chosen keys`),
        side('out', `Leave ${word.toLowerCase()} from the chosen keys`),
      ];
    });
  }

  private legs(): Command[] {
    const leg = (id: string, label: string, made: Leg): Command => ({
      id: `leg.${id}`,
      label,
      group: 'Shape',
      when: this.hasKeys,
      run: () => this.put(made),
    });
    return [
      leg('curve', 'Curve after the chosen keys', { kind: 'curve' }),
      leg('hold', 'Hold after the chosen keys', { kind: 'hold' }),
      leg('fall', 'Free fall after the chosen keys', { kind: 'ballistic' }),
      leg('ease-in', 'Ease in: slow start after the chosen keys', {
        kind: 'ease',
        family: 'cubic',
        slow: 'start',
      }),
      leg('ease-out', 'Ease out: slow end after the chosen keys', {
        kind: 'ease',
        family: 'cubic',
        slow: 'end',
      }),
      leg('ease-both', 'Ease in and out: slow at both ends after the chosen keys', {
        kind: 'ease',
        family: 'cubic',
        slow: 'both',
      }),
      ...EASE_FAMILIES.map((family) =>
        leg(`ease-${family}`, `Ease ${EASE_LABELS[family]}, ${EASE_GROUPS[family]}, after the chosen keys`, {
          kind: 'ease',
          family,
          slow: 'both',
        }),
      ),
      ...CAM_LAWS.map((law) =>
        leg(`law-${law}`, `Law ${LAW_LABELS[law]} after the chosen keys`, { kind: 'law', law }),
      ),
    ];
  }

  private put(leg: Leg): void {
    const { keys } = this.studio.bench();
    const what = leg.kind === 'ease' || leg.kind === 'law' ? legText(leg) : LEG_LABELS[leg.kind];
    this.studio.edit(`Leg: ${what}`, (project) => setLeg(project, keys, leg));
  }
}
