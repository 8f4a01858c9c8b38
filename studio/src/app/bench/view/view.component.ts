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
import { Vector3 } from 'three';
import { Assets } from '../../state/assets';
import { Studio } from '../../state/studio';
import { Turns } from '../../ui/in-turn.directive';
import { Notices } from '../../ui/notices';
import { Progress } from '../../ui/progress';
import { arrivalBar } from './arrival-bar';
import { Theme } from '../../ui/theme';
import { Stage, type Evaluated } from '../stage/stage';
import { AmountStripComponent } from './amount-strip.component';
import { Fly } from './fly';
import { GripChip } from './grip-chip';
import { toScreen, type Eye } from './grip-math';
import { GripsComponent } from './grips.component';
import { pictureOf, ProjectPicture, type PictureSize } from './picture';
import { readPose } from './part-pose';
import { PivotGripComponent } from './pivot-grip.component';
import { ShapeGripsComponent } from './shape-grips.component';
import { SquashGripComponent } from './squash-grip.component';
import { StageScene } from './stage-scene';
import { TitleBlockComponent } from './title-block.component';
import { trailBeads, type Bead } from './trail';
import { ShotFrameComponent } from './shot-frame.component';
import { seenByShot, ShotLook } from './shot-look';
import { ViewCamera } from './view-camera';
import { ViewControl } from '../stage/view-control';
import { ViewFraming } from './view-framing';
import { ViewScreen } from './view-screen';
import { ViewPress, type PressedView } from './view-press';

/** The view: the project in three dimensions. It draws when something changed, never by itself. */
@Component({
  selector: 'kz-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    AmountStripComponent,
    GripsComponent,
    PivotGripComponent,
    ShapeGripsComponent,
    ShotFrameComponent,
    SquashGripComponent,
    TitleBlockComponent,
  ],
  template: `
    <div
      #frame
      class="frame"
      role="application"
      aria-label="View of the project. Pick parts in the rows below; every tool has a shortcut."
      tabindex="0"
      (pointerdown)="onPress($event)"
      (wheel)="onWheel($event)"
      (keydown)="onKey($event)"
      (dblclick)="onDoubleClick($event)"
    >
      <canvas #canvas></canvas>
    </div>
    <kz-shot-frame />
    @if (eye(); as eye) {
      <kz-grips [eye]="eye" />
      <kz-squash-grip [eye]="eye" />
      <kz-shape-grips [eye]="eye" />
      <kz-pivot-grip [eye]="eye" />
      <kz-amount-strip [eye]="eye" />
    }
    @if (chip.shown(); as shown) {
      <div class="chip-at numbers" [style.left.px]="shown.x + 16" [style.top.px]="shown.y + 14">
        {{ shown.text }}
      </div>
    }
    <kz-title-block [focalLength]="focalLength()" />
    @if (problem(); as text) {
      <p class="problem">{{ text }}</p>
    }
  `,
  styleUrl: './view.component.scss',
})
export class ViewComponent implements AfterViewInit {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly stage = inject(Stage);
  private readonly theme = inject(Theme);
  private readonly picture = inject(ProjectPicture);
  private readonly control = inject(ViewControl);
  private readonly press = inject(ViewPress);
  private readonly notices = inject(Notices);
  private readonly progress = inject(Progress);
  private readonly turns = inject(Turns);
  readonly chip = inject(GripChip);
  private readonly destroyed = inject(DestroyRef);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private scene: StageScene | null = null;
  private screen: ViewScreen | null = null;
  private view: ViewCamera | null = null;
  private framing: ViewFraming | null = null;
  readonly shot = inject(ShotLook);
  private readonly fly = inject(Fly);
  private readonly ready = signal(false);
  /** Parts that are still to come into sight. */
  private brought: readonly string[] = [];
  /** Counts movements of the camera, for what is drawn over the view. */
  private readonly looks = signal(0);
  /** The few things of the Bench that the view draws by: it does nothing when others change. */
  private readonly parts = computed(() => this.studio.bench().parts);
  private readonly trailShown = computed(() => this.studio.bench().trail);
  private readonly seeing = computed(() => this.studio.bench().seeing);
  private readonly keepInSight = computed(() => this.studio.bench().keepInSight);
  private readonly ghostsShown = computed(() => this.studio.bench().ghosts);
  /** Where the chosen part goes over the range. */
  private readonly beads = computed((): readonly Bead[] => {
    const part = this.parts().at(-1);
    const program = this.stage.program();
    const project = this.stage.shown();
    return part === undefined || !program || !project ? [] : trailBeads(project, program, part);
  });

  readonly problem = computed(() => {
    const [problem] = this.stage.problems();
    return problem ? `This project can’t be shown: at ${problem.pointer}, ${problem.message}.` : null;
  });

  readonly eye = computed((): Eye | null => {
    this.looks();
    if (!this.ready() || !this.view) return null;
    const { camera } = this.shot.part() ? this.shot : this.view;
    if (camera === this.shot.camera) this.stage.now();
    return { camera, ...this.shot.size() };
  });

  readonly focalLength = computed(() => {
    const eye = this.eye();
    return this.shot.focalLength() ?? (eye ? 12 / Math.tan((eye.camera.fov * Math.PI) / 360) : 35);
  });

  constructor() {
    effect(() => this.takeProject());
    effect(() => this.takeSelection());
    effect(() => this.takeTrail());
    effect(() => this.takeFrame());
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
    const framing = new ViewFraming(this.scene, this.view);
    this.framing = framing;
    this.scene.whenChanged(
      () => {
        if (!this.control.placed) this.openView();
        this.bringIntoSight();
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
        name === 'side-on' ? framing.sideOn(this.parts(), this.beads()) : this.view?.show(name),
      fit: (all) => framing.fit(all ? [] : this.parts()),
      bring: (parts) => {
        this.brought = parts;
        this.bringIntoSight();
      },
      picture: (size) => pictureOf(this.canvas().nativeElement, size),
      shotDrawn: (size, finished) => this.shotDrawn(size, finished),
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
    this.ready.set(true);
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
  }

  private takeSelection(): void {
    const parts = this.parts();
    this.stage.shown();
    if (!this.ready()) return;
    this.scene?.setSelected(parts);
    this.draw();
  }

  private takeTrail(): void {
    const beads = this.trailShown() ? this.beads() : [];
    this.theme.name();
    if (!this.ready()) return;
    this.scene?.showTrail(beads);
    this.draw();
  }

  private takeFrame(): void {
    const now = this.stage.now();
    const ghosts = this.ghostsShown();
    const parts = this.parts();
    const project = this.stage.shown();
    const seeing = this.seeing();
    const shot = this.shot.part();
    this.shot.frame();
    this.shot.lens();
    if (!this.ready() || !this.scene || !now) return;
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
    });
    this.draw();
  }

  /** While it plays and that is asked for, the view goes along with the part chosen last. */
  private goAlong(now: Evaluated): void {
    const follows = this.stage.playing() && this.keepInSight() && this.shot.part() === null;
    const pose = follows ? readPose(now, this.parts().at(-1) ?? '') : null;
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

  /** Parts that were brought come into sight as soon as their meshes are there. */
  private bringIntoSight(): void {
    const eye = this.eye();
    if (!eye || this.scene?.isArriving || this.brought.length === 0) return;
    this.framing?.bring(this.brought, eye);
    this.brought = [];
  }

  private draw(): void {
    this.screen?.show(() => this.drawNow());
    this.picture.soon((size, taken) => this.shotPicture(size, taken));
  }

  private drawNow(): void {
    if (!this.view) return;
    const isShot = this.shot.part() !== null;
    this.scene?.draw(this.view.target, isShot ? this.shot.camera : undefined, this.shot.lens());
  }

  /** Draws what a camera of the shot sees, without its own lines in the picture. */
  private drawShot(
    scene: StageScene,
    view: ViewCamera,
    shot: NonNullable<ReturnType<typeof seenByShot>>,
  ): void {
    scene.lookThrough(shot.id);
    scene.draw(view.target, shot.camera);
    scene.lookThrough(this.shot.part()?.id ?? null);
  }

  /** Draws what the shot shows at a size of its own, out of sight. */
  private shotDrawn(size: PictureSize, finished: (drawn: OffscreenCanvas | null) => void): void {
    const now = this.stage.now();
    const { scene, view, screen } = this;
    const shot = now && size.height > 0 ? seenByShot(now, size.width / size.height) : null;
    if (!scene || !view || !screen || !shot) {
      finished(null);
      return;
    }
    screen.take(() => {
      const own = this.shot.size();
      scene.resize(size.width, size.height);
      this.drawShot(scene, view, shot);
      scene.resize(own.width, own.height);
    }, finished);
  }

  /** What the shot shows: seen by its camera, where there is one, else as the view shows it. */
  private shotPicture(size: PictureSize, taken: (picture: string | null) => void, atOnce = false): void {
    const canvas = this.canvas().nativeElement;
    const now = this.stage.now();
    const shot = now && seenByShot(now, canvas.width / Math.max(1, canvas.height));
    const { scene, view, screen } = this;
    if (!scene || !view || !screen || !shot) {
      taken(pictureOf(canvas, size));
      return;
    }
    const draw = () => this.drawShot(scene, view, shot);
    const finished = (drawn: OffscreenCanvas) => taken(pictureOf(drawn, size));
    screen.take(draw, finished, atOnce);
  }

  private leave(): void {
    this.picture.leave((size, taken) => this.shotPicture(size, taken, true));
    this.control.attach(null);
    this.screen?.leave();
    this.view?.dispose();
    this.scene?.dispose();
    this.scene = null;
  }

  onPress(down: PointerEvent): void {
    if (this.fly.isOn()) this.fly.drag(down);
    else this.press.press(down, this.pressed());
  }

  onWheel(event: WheelEvent): void {
    if (this.fly.isOn()) this.fly.roll(event);
  }

  onKey(event: KeyboardEvent): void {
    if (this.fly.isOn()) this.fly.press(event);
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
      beads: this.trailShown() ? this.beads() : [],
      corner: this.frame().nativeElement.getBoundingClientRect(),
    };
  }
}
