import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import type { Project } from '@kaizen/core';
import { Vector3 } from 'three';
import { Assets } from '../../state/assets';
import { Turns } from '../../ui/in-turn.directive';
import { Notices } from '../../ui/notices';
import { Progress } from '../../ui/progress';
import { arrivalBar } from './arrival-bar';
import { drawing } from '../../ui/drawing';
import { Theme } from '../../ui/theme';
import { Stage, type Evaluated } from '../stage/stage';
import { AmountStripComponent } from './amount-strip.component';
import { Fly } from './fly';
import { toScreen, type Eye } from './grip-math';
import { GripsComponent } from './grips.component';
import { pictureOf, ProjectPicture } from './picture';
import { readPose } from './part-pose';
import { StageScene } from './stage-scene';
import { TitleBlockComponent } from './title-block.component';
import { ShotFrameComponent } from './shot-frame.component';
import { ShotLook } from './shot-look';
import { ShotPictures } from './shot-pictures';
import { ViewAsked } from './view-asked';
import { ViewCamera } from './view-camera';
import { ViewControl } from '../stage/view-control';
import { ViewFraming } from './view-framing';
import { ViewGrips } from './view-grips';
import { ViewScreen } from './view-screen';
import { ViewPress, type PressedView } from './view-press';

/** The view: the project in three dimensions. It draws when something changed, never by itself. */
@Component({
  selector: 'kz-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [AmountStripComponent, GripsComponent, ShotFrameComponent, TitleBlockComponent],
  templateUrl: './view.component.html',
  styleUrl: './view.component.scss',
})
export class ViewComponent implements AfterViewInit {
  private readonly assets = inject(Assets);
  private readonly stage = inject(Stage);
  private readonly theme = inject(Theme);
  private readonly picture = inject(ProjectPicture);
  private readonly control = inject(ViewControl);
  readonly asked = inject(ViewAsked);
  private readonly press = inject(ViewPress);
  readonly grips = inject(ViewGrips);
  private readonly notices = inject(Notices);
  private readonly progress = inject(Progress);
  private readonly turns = inject(Turns);
  private readonly destroyed = inject(DestroyRef);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private scene: StageScene | null = null;
  private screen: ViewScreen | null = null;
  private view: ViewCamera | null = null;
  private framing: ViewFraming | null = null;
  private pictures: ShotPictures | null = null;
  readonly shot = inject(ShotLook);
  readonly fly = inject(Fly);
  private readonly ready = signal(false);
  /** The project that the scene has. */
  private readonly taken = signal<Project | null>(null);
  /** Counts movements of the camera, for what is drawn over the view. */
  private readonly looks = signal(0);
  readonly eye = computed((): Eye | null => {
    this.looks();
    const { width, height } = this.shot.size();
    if (!this.ready() || !this.view || width === 0 || height === 0) return null;
    const { camera } = this.shot.part() ? this.shot : this.view;
    if (camera === this.shot.camera) this.stage.now();
    return { camera, width, height };
  });

  readonly focalLength = computed(() => {
    const eye = this.eye();
    return this.shot.focalLength() ?? (eye ? 12 / Math.tan((eye.camera.fov * Math.PI) / 360) : 35);
  });

  constructor() {
    effect(() => this.takeProject());
    effect(() => this.takeSelection());
    drawing(() => this.takeTrail());
    drawing(() => this.takeFrame());
    effect(() => this.takeTheme());
    effect(() => {
      const flies = this.fly.isOn();
      if (this.ready() && this.view) this.view.controls.enabled = !flies;
    });
    this.destroyed.onDestroy(() => this.leave());
  }

  ngAfterViewInit(): void {
    const element = this.frame().nativeElement;
    const { turns } = this;
    const tell = arrivalBar(this.progress);
    const canvas = new OffscreenCanvas(1, 1);
    const scene = new StageScene(
      canvas,
      (asset) => this.assets.bytesOf(asset),
      (run) => turns.take(run),
    );
    this.scene = scene;
    this.screen = new ViewScreen(
      scene.renderer,
      canvas,
      this.canvas().nativeElement,
      () => scene.prepare(),
      () => scene.drawnSoFar,
      (soFar) => scene.wasSeen(soFar),
    );
    this.view = new ViewCamera(this.scene.camera, element, () => {
      this.control.shot.set(null);
      this.looks.update((count) => count + 1);
      this.draw();
    });
    const framing = new ViewFraming(scene, this.view);
    this.framing = framing;
    const pictures = new ShotPictures(scene, this.screen, this.view, this.canvas().nativeElement, {
      now: () => this.stage.now(),
      through: () => this.shot.part()?.id ?? null,
      size: () => this.shot.size(),
    });
    this.pictures = pictures;
    this.scene.whenChanged(
      () => {
        if (!this.control.placed) this.openView();
        framing.bringAwaited(this.eye());
        this.draw();
      },
      (model, reason) =>
        this.notices.warn(
          `${model} can’t be shown: ${reason}. Its parts keep their motion; bring the model again.`,
        ),
      tell,
    );
    this.control.attach({
      show: (name) =>
        name === 'side-on' ? framing.sideOn(this.asked.parts(), this.asked.beads()) : this.view?.show(name),
      fit: (all) => framing.fit(all ? [] : this.asked.parts()),
      bring: (parts) => {
        framing.awaitParts(parts);
        framing.bringAwaited(this.eye());
      },
      picture: (size) => pictureOf(this.canvas().nativeElement, size),
      shotDrawn: (size, finished) => pictures.drawn(size, finished),
      looks: () => this.eye()?.camera.matrixWorld ?? null,
      onScreen: (place) => {
        const eye = this.eye();
        return eye && toScreen(eye, new Vector3(...place));
      },
    });
    const observer = new ResizeObserver(() => this.resize(element));
    observer.observe(element);
    this.destroyed.onDestroy(() => observer.disconnect());
    this.resize(element);
    // What it shows is taken in a task of its own.
    turns.take(() => this.ready.set(true));
  }

  private resize(element: HTMLElement): void {
    const { clientWidth: width, clientHeight: height } = element;
    this.scene?.resize(width, height);
    this.shot.size.set({ width, height });
    this.draw();
  }

  private takeProject(): void {
    const project = this.stage.shown();
    if (!this.ready() || !project) return;
    this.scene?.setProject(project);
    this.taken.set(project);
  }

  private takeSelection(): void {
    const parts = this.asked.parts();
    this.stage.shown();
    if (!this.ready()) return;
    this.scene?.setSelected(parts);
    this.draw();
  }

  private takeTrail(): void {
    const beads = this.asked.trailShown() ? this.asked.beads() : [];
    this.theme.name();
    if (!this.ready()) return;
    this.scene?.showTrail(beads);
    this.draw();
  }

  private takeFrame(): void {
    const now = this.stage.now();
    const ghosts = this.asked.ghostsShown();
    const parts = this.asked.parts();
    const project = this.stage.shown();
    const seeing = this.asked.seeing();
    const shot = this.shot.part();
    this.shot.frame();
    this.shot.lens();
    if (this.taken() !== project || !this.scene || !now) return;
    this.scene.seen.take(now.program.structure.parts, seeing);
    this.scene.setFrame(now.program, now.out);
    this.goAlong(now);
    if (ghosts && parts.length > 0 && !this.stage.playing())
      this.scene.showGhosts(project, now.program, now.frame);
    else this.scene.showGhosts(null, null, 0);
    this.scene.lookThrough(shot?.id ?? null);
    if (shot) this.shot.take(now, shot);
    const id = project?.id;
    untracked(() => {
      if (this.control.project !== id) {
        this.control.project = id;
        this.control.placed = false;
      }
      if (!this.control.placed) this.openView();
      this.control.frames.update((count) => count + 1);
    });
    this.draw();
  }

  /** While it plays and that is asked for, the view goes along with the part chosen last. */
  private goAlong(now: Evaluated): void {
    const follows = this.stage.playing() && this.asked.keepInSight() && this.shot.part() === null;
    const pose = follows ? readPose(now, this.asked.parts().at(-1) ?? '') : null;
    untracked(() => this.framing?.goAlong(pose?.pivot ?? null));
  }

  private takeTheme(): void {
    this.theme.name();
    if (!this.ready()) return;
    this.scene?.recolor();
    this.draw();
  }

  private openView(): void {
    if (!this.scene?.isArriving && this.framing?.open()) this.control.placed = true;
  }

  private draw(): void {
    this.screen?.show(() => {
      if (!this.view) return;
      const isShot = this.shot.part() !== null;
      this.scene?.draw(this.view.target, isShot ? this.shot.camera : undefined, this.shot.lens());
    });
    this.picture.soon((size, taken) => this.pictures?.take(size, taken));
  }

  private leave(): void {
    this.picture.leave((size, taken) => this.pictures?.take(size, taken, true));
    this.control.attach(null);
    this.screen?.leave();
    this.view?.dispose();
    this.scene?.dispose();
    this.scene = this.pictures = null;
  }

  onPress(down: PointerEvent): void {
    const on = this.pressed();
    if (this.press.grab(down, on)) return;
    if (this.fly.isOn()) this.fly.drag(down);
    else this.press.press(down, on);
  }

  onHover(event: PointerEvent): void {
    this.press.hover(event, this.pressed());
  }

  onDoubleClick(event: MouseEvent): void {
    this.press.doubleClick(event, this.pressed());
  }

  /** What a press may need of the view. */
  private pressed(): PressedView {
    return {
      scene: this.scene,
      view: this.view,
      eye: this.eye(),
      corner: this.frame().nativeElement.getBoundingClientRect(),
    };
  }
}
