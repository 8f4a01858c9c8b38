import { Injectable, inject } from '@angular/core';
import { addParts, changePart, newPart, partOf, type PathPart, type Vec3 } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { PartPicker } from '../stage/picker';

/** Paths drawn in the view: a press sets a point on the floor or on what lies under the pointer. */
@Injectable({ providedIn: 'root' })
export class PathHands {
  private readonly studio = inject(Studio);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);

  /** Draws a new path; `then` is told its id once it is ended. */
  draw(then: (path: string) => void = () => undefined): void {
    let first: Vec3 | null = null;
    let path: string | null = null;
    const next = (): void => {
      const count = path === null ? (first ? 1 : 0) : this.pointsOf(path).length;
      this.picker.ask({
        words:
          count === 0
            ? 'Press where the path begins, on the floor or on a part'
            : count === 1
              ? 'Press where it goes next'
              : `Press where it goes next; it has ${count} points`,
        anywhere: true,
        refuse: () => null,
        ...(path === null ? {} : { end: { label: 'End the path', run: () => then(path!) } }),
        take: (_, place) => {
          if (place) {
            if (path !== null) this.add(path, place);
            else if (first === null) first = tidy(place);
            else path = this.begin([first, tidy(place)]);
          }
          next();
        },
      });
    };
    next();
  }

  /** Goes on with a path that is there. */
  goOn(path: string): void {
    this.picker.ask({
      words: `Press where it goes next; it has ${this.pointsOf(path).length} points`,
      anywhere: true,
      refuse: () => null,
      end: { label: 'End the path', run: () => undefined },
      take: (_, place) => {
        if (place) this.add(path, place);
        this.goOn(path);
      },
    });
  }

  removePoint({ id, path }: PathPart, at: number): void {
    this.setPoints(
      id,
      path.points.filter((_, i) => i !== at),
    );
  }

  setPoints(path: string, points: readonly Vec3[]): void {
    if (points.length < 2) {
      this.notices.warn('A path needs two points at least. Nothing was changed.');
      return;
    }
    this.studio.edit('Points of a path', (project) =>
      changePart(project, path, (part) =>
        part.kind === 'path' ? { ...part, path: { ...part.path, points } } : part,
      ),
    );
  }

  setClosed(path: string, closed: boolean): void {
    this.studio.edit(closed ? 'Close a path' : 'Open a path', (project) =>
      changePart(project, path, (part) =>
        part.kind === 'path' ? { ...part, path: { ...part.path, closed } } : part,
      ),
    );
  }

  private pointsOf(path: string): readonly Vec3[] {
    const project = this.studio.project();
    const part = project && partOf(project, path);
    return part?.kind === 'path' ? part.path.points : [];
  }

  private begin(points: readonly Vec3[]): string {
    let id = 'path';
    this.studio.edit('Draw a path', (project) => {
      const plain = newPart('group', 'Path');
      const part: PathPart = { ...plain, id: 'path', kind: 'path', path: { points, closed: false } };
      const made = addParts(project, { parts: [part], assets: [] });
      id = made.added[0] ?? id;
      return made.project;
    });
    return id;
  }

  private add(path: string, place: Vec3): void {
    this.setPoints(path, [...this.pointsOf(path), tidy(place)]);
  }
}

/** To a millimetre: what a hand means. */
function tidy(place: Vec3): Vec3 {
  return place.map((n) => Math.round(n * 1e3) / 1e3 + 0) as unknown as Vec3;
}
