import { Injectable, inject } from '@angular/core';
import {
  channelKind,
  channelName,
  fromWorld,
  groupParts,
  inWorld,
  partOf,
  partProperties,
  shapeMesh,
  translateOf,
  type ChannelKind,
  type Vec3,
} from '@kaizen/core';
import { switching, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { LinkHands } from '../links/link-hands';
import { Poser, type ChannelValue } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { ModelMeshes } from '../stage/model-meshes';
import { Stage } from '../stage/stage';
import { PathHands } from '../links/path-hands';

/** A press nearer to a corner than this share of the part's size means the corner. */
const CORNER = 0.08;

/** Putting parts together: groups, aligning, pivots on other parts, and back to rest. */
@Injectable({ providedIn: 'root' })
export class BuildCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly links = inject(LinkHands);
  private readonly notices = inject(Notices);
  private readonly paths = inject(PathHands);
  private readonly models = inject(ModelMeshes);

  list(): readonly Command[] {
    const hasParts = () => this.studio.bench().parts.length > 0 && !this.studio.readOnly();
    const kinds: readonly (readonly [ChannelKind, string])[] = [
      ['place', 'Place back to rest'],
      ['turn', 'Turn back to rest'],
      ['size', 'Size back to rest'],
    ];
    return [
      {
        id: 'part.group',
        label: 'Group the chosen parts',
        group: 'Pose',
        shortcuts: ['Ctrl+G'],
        when: hasParts,
        run: () => this.group(),
      },
      {
        id: 'part.align',
        label: 'Put the pivot of the part where another part’s is: pick it',
        group: 'Pose',
        when: hasParts,
        run: () => this.askAlign(),
      },
      {
        id: 'part.put',
        label: 'Put the pivot of the part on a corner or a face: pick it',
        group: 'Pose',
        when: hasParts,
        run: () => this.askPut(),
      },
      {
        id: 'part.pivot-on',
        label: 'Turn about another part’s pivot: pick it; nothing moves',
        group: 'Pose',
        when: hasParts,
        run: () => this.askPivot(),
      },
      {
        id: 'path.draw',
        label: 'Draw a path in the view',
        group: 'Pose',
        when: () => !this.studio.readOnly(),
        run: () =>
          this.paths.draw((path) => this.studio.pick({ parts: [path], channels: [], keys: [], handles: [] })),
      },
      {
        id: 'pick.end',
        label: 'End what is asked for again and again, such as the points of a path',
        group: 'Pose',
        shortcuts: ['Shift+Enter'],
        when: () => this.picker.question()?.end !== undefined,
        run: () => this.picker.end(),
      },
      switching(
        {
          id: 'part.shape-grips',
          label: 'Grips on the sizes of the chosen shape, or none',
          group: 'Pose',
          shortcuts: ['Shift+5'],
        },
        () => this.studio.bench().shapeGrips,
        (shapeGrips) => this.studio.set({ shapeGrips }),
      ),
      switching(
        {
          id: 'part.pivot-grip',
          label: 'The pivot to be dragged, or not',
          group: 'Pose',
          shortcuts: ['Shift+6'],
        },
        () => this.studio.bench().pivotGrip,
        (pivotGrip) => this.studio.set({ pivotGrip }),
      ),
      ...kinds.map(([kind, label]): Command => ({
        id: `pose.rest-${kind}`,
        label,
        group: 'Pose',
        when: hasParts,
        run: () => this.toRest(kind, label),
      })),
    ];
  }

  private group(): void {
    const project = this.studio.project();
    if (!project) return;
    const made = groupParts(project, this.studio.bench().parts, this.stage.frame());
    if (!made.ok) {
      this.notices.warn(`${made.problems[0]?.message ?? 'They can’t be grouped'}. Nothing was changed.`);
      return;
    }
    this.studio.edit('Group', () => made.value.project);
    this.studio.pick({ parts: [made.value.group], channels: [], keys: [], handles: [] });
    this.studio.set({ sheet: 'part' });
  }

  /** The values of one kind that differ from rest come back to it, as any change by hand does: loose, or as keys. */
  private toRest(kind: ChannelKind, label: string): void {
    const project = this.studio.project();
    if (!project) return;
    const values = this.studio.bench().parts.flatMap((id): readonly ChannelValue[] => {
      const part = partOf(project, id);
      if (!part) return [];
      return partProperties(part).flatMap(({ property, rest }) => {
        const channel = channelName(id, property);
        return channelKind(property) === kind && this.stage.valueOf(channel) !== rest
          ? [{ channel, value: rest }]
          : [];
      });
    });
    if (values.length > 0) this.poser.take(label, values);
    else this.notices.tell('It is at rest already');
  }

  private chosen(): string | null {
    return this.studio.bench().parts.at(-1) ?? null;
  }

  /** Where a part’s pivot is in the world at the playhead, and the matrix of what it rides on. */
  private placeOf(
    id: string,
  ): { readonly pivot: Vec3; readonly slot: number; readonly above: Float64Array | null } | null {
    const now = this.stage.now();
    const i = now?.program.structure.partIndex.get(id);
    if (!now || i === undefined) return null;
    const { structure } = now.program;
    const parent = structure.hierarchy.parents[i]!;
    return {
      pivot: inWorld(now.out.world[i]!, structure.parts[i]!.pivot),
      slot: structure.firstSlot[i]!,
      above: parent >= 0 ? now.out.world[parent]! : null,
    };
  }

  private askAlign(): void {
    const part = this.chosen();
    const project = this.studio.project();
    if (part === null || !project) return;
    const name = partOf(project, part)?.name ?? part;
    this.picker.ask({
      words: `Pick where ${name} is put`,
      refuse: (onto) => (onto === part ? `${name} is there already: pick another part` : null),
      take: (onto) => this.align(part, onto),
    });
  }

  private askPut(): void {
    const part = this.chosen();
    const project = this.studio.project();
    if (part === null || !project) return;
    const name = partOf(project, part)?.name ?? part;
    this.picker.ask({
      words: `Pick the corner or the face on which ${name} is put`,
      refuse: (onto) => (onto === part ? `${name} itself is no answer: pick another part` : null),
      take: (onto, place) => this.put(part, onto, place),
    });
  }

  /** Puts the pivot on the corner next to where it was pressed, else right there on the face. */
  private put(part: string, onto: string, place: Vec3 | null): void {
    if (!place) {
      this.notices.warn('A corner or a face is picked in the view. Nothing was changed.');
      return;
    }
    const corner = this.cornerNear(onto, place);
    this.align(part, corner ?? place);
    this.notices.tell(
      corner ? 'Its pivot is on the corner' : 'Its pivot is on the face, where it was pressed',
    );
  }

  /** The corner of a part that is near a place on it: nearer than a share of its size. */
  private cornerNear(id: string, place: Vec3): Vec3 | null {
    const now = this.stage.now();
    const i = now?.program.structure.partIndex.get(id);
    const part = now && i !== undefined ? now.program.structure.parts[i] : undefined;
    if (!now || i === undefined || part?.kind !== 'mesh') return null;
    const mesh = part.geometry.shape === 'asset' ? this.models.of(part) : shapeMesh(part.geometry);
    if (!mesh) return null;
    let [best, size]: [Vec3 | null, number] = [null, 0];
    let nearest = Infinity;
    for (let n = 0; n < mesh.positions.length; n += 3) {
      const own: Vec3 = [mesh.positions[n]!, mesh.positions[n + 1]!, mesh.positions[n + 2]!];
      const at = inWorld(now.out.world[i]!, own);
      const off = Math.hypot(at[0] - place[0], at[1] - place[1], at[2] - place[2]);
      size = Math.max(size, off);
      if (off < nearest) [nearest, best] = [off, at];
    }
    return nearest < size * CORNER ? best : null;
  }

  /** Moves a part so that its pivot is at a place of the world, or where another part’s is. */
  private align(part: string, onto: string | Vec3): void {
    const now = this.stage.now();
    const own = this.placeOf(part);
    const place = typeof onto === 'string' ? this.placeOf(onto)?.pivot : onto;
    if (!now || !own || !place) return;
    const away: Vec3 = [0, 1, 2].map((n) => place[n]! - own.pivot[n]!) as unknown as Vec3;
    const shift = translateOf(away, own.above);
    this.poser.take(
      'Align',
      shift.flatMap((by, n) =>
        by === 0
          ? []
          : [
              {
                channel: channelName(part, `translate.${'xyz'.charAt(n)}`),
                value: now.out.channels[own.slot + n]! + by,
              },
            ],
      ),
    );
  }

  private askPivot(): void {
    const part = this.chosen();
    const project = this.studio.project();
    if (part === null || !project) return;
    const name = partOf(project, part)?.name ?? part;
    this.picker.ask({
      words: `Pick whose pivot ${name} will turn about`,
      refuse: (onto) =>
        onto === part ? `${name} turns about its own pivot already: pick another part` : null,
      take: (onto) => this.pivotOn(part, onto),
    });
  }

  private pivotOn(part: string, onto: string): void {
    const now = this.stage.now();
    const other = this.placeOf(onto);
    const i = now?.program.structure.partIndex.get(part);
    if (!now || !other || i === undefined) return;
    const inside = fromWorld(now.out.world[i]!, other.pivot);
    if (inside) this.links.movePivot(part, inside);
    else
      this.notices.warn(
        'The part has no size in some direction: its inside can’t be told. Nothing was changed.',
      );
  }
}
