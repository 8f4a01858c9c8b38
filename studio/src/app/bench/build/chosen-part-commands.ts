import { Injectable, inject } from '@angular/core';
import { changePart, channelName, type Part, type PathPart, type Project } from '@kaizen/core';
import { onItem, type Command, type ItemCommand } from '../../commands/command';
import { Opener } from '../../open/opener';
import { Studio } from '../../state/studio';
import { PathHands } from '../links/path-hands';
import { Poser } from '../posing/poser';
import { USUAL_SQUASH } from '../posing/usual-squash';
import { chosenParts } from '../stage/chosen-parts';
import { Stage } from '../stage/stage';
import { NumberHands } from './number-hands';
import { ShapeHands } from './shape-hands';

/** One of the points of a path. */
interface PathPoint {
  readonly path: PathPart;
  readonly at: number;
}

/** Commands about the chosen part that need nothing typed; what one kind of part has is there for that kind only. */
@Injectable({ providedIn: 'root' })
export class ChosenPartCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly opener = inject(Opener);
  private readonly paths = inject(PathHands);
  private readonly shapes = inject(ShapeHands);
  private readonly numbers = inject(NumberHands);

  list(): readonly Command[] {
    const { paths, shapes, numbers } = this;
    const any = (part: Part) => part;
    const solid = (part: Part) => (part.kind === 'mesh' || part.kind === 'group' ? part : null);
    const mesh = (part: Part) => (part.kind === 'mesh' ? part : null);
    const path = (part: Part) => (part.kind === 'path' ? part : null);
    return [
      this.about(any, 'part.visible', 'The chosen parts show at the playhead, or not', {
        when: () => this.allChosen().some((part) => !this.isDriven(visibilityOf(part))),
        on: () => this.allChosen().every((part) => this.isVisible(part)),
        run: (part) => {
          const parts = this.allChosen();
          const value = parts.every((each) => this.isVisible(each)) ? 0 : 1;
          this.poser.take(
            parts.length === 1 ? `Set ${part.name}` : `Set ${parts.length} parts`,
            parts.map((each) => ({ channel: visibilityOf(each), value })),
          );
        },
      }),
      this.about(mesh, 'part.newer-model', 'Bring a newer version of the model of the chosen part', {
        when: ({ geometry }) => geometry.shape === 'asset',
        run: ({ geometry }) => {
          if (geometry.shape === 'asset') void this.opener.replaceModel(geometry.asset);
        },
      }),
      this.about(solid, 'squash.on', 'Squash of the chosen part, or none', {
        on: (part) => part.squash !== undefined,
        run: ({ id }) => this.studio.edit('Squash', (project) => withOrWithoutSquash(project, id)),
      }),
      this.about(path, 'path.go-on', 'Go on with the chosen path in the view', {
        run: ({ id }) => paths.goOn(id),
      }),
      this.about(path, 'path.closed', 'The chosen path is closed, or open', {
        on: (part) => part.path.closed,
        run: (part) => paths.setClosed(part.id, !part.path.closed),
      }),
      onItem<PathPoint>({
        id: 'path.point-remove',
        label: 'Remove the last point of the chosen path',
        group: 'Pose',
        meant: () => {
          const chosen = this.chosen();
          return chosen?.kind === 'path' ? { path: chosen, at: chosen.path.points.length - 1 } : null;
        },
        when: (point) => !this.studio.readOnly() && point.path.path.points.length > 2,
        run: (point) => paths.removePoint(point.path, point.at),
      }),
      this.about(mesh, 'shape.new', 'New target shape of the chosen part: pick a place on it', {
        when: ({ geometry }) => geometry.shape !== 'asset',
        run: (part) => shapes.ask(part),
      }),
      this.about(mesh, 'shape.all', 'Try all target shapes of the chosen part at 1', {
        when: ({ morphs }) => morphs.length > 0,
        run: (part) => shapes.setAll(part, 1),
      }),
      this.about(mesh, 'shape.none', 'All target shapes of the chosen part to 0', {
        when: ({ morphs }) => morphs.length > 0,
        run: (part) => shapes.setAll(part, 0),
      }),
      this.about(any, 'number.new', 'New number of the chosen part, that can be keyed and read', {
        run: (part) => numbers.add(part),
      }),
    ];
  }

  /** A command about the chosen part where it is of a kind, and may be edited. */
  private about<T extends Part>(
    kind: (part: Part) => T | null,
    id: string,
    label: string,
    { when, ...what }: Pick<ItemCommand<T>, 'when' | 'on' | 'run'>,
  ): Command {
    return onItem<T>({
      id,
      label,
      group: 'Pose',
      meant: () => {
        const part = this.chosen();
        return part && kind(part);
      },
      when: (part) => !this.studio.readOnly() && (when?.(part) ?? true),
      ...what,
    });
  }

  private chosen(): Part | null {
    return this.allChosen().at(-1) ?? null;
  }

  private allChosen(): readonly Part[] {
    return chosenParts(this.stage.shown(), this.studio.bench().parts);
  }

  private isVisible(part: Part): boolean {
    return (this.stage.valueOf(visibilityOf(part)) ?? 1) >= 0.5;
  }

  private isDriven(channel: string): boolean {
    const program = this.stage.program();
    return program?.isDriven(program.structure.slots.get(channel) ?? -1) ?? false;
  }
}

function visibilityOf({ id }: Part): string {
  return channelName(id, 'visible');
}

function withOrWithoutSquash(project: Project, id: string): Project {
  return changePart(project, id, (part) => {
    const { squash, ...plain } = part;
    return squash ? plain : { ...part, squash: USUAL_SQUASH };
  });
}
