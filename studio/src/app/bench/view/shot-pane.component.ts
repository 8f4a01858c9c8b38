import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { shotCamera } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Theme } from '../../ui/theme';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';

/** What the shot shows, beside the working view: seen by the camera of the shot at each frame. */
@Component({
  selector: 'kz-shot-pane',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    <canvas #canvas role="img" [attr.aria-label]="'What ' + name() + ' sees'"></canvas>
    <div class="bar">
      <span>{{ name() }}</span>
      <button class="button bare" kzRun="view.beside" kzTip="The working view alone again">✕</button>
    </div>
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0 0 0 50%;
      overflow: hidden;
      border-left: 1px solid var(--rule);
      background: var(--paper);
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
    }
    .bar {
      position: absolute;
      top: calc(var(--view-bar, 40px) + 4px);
      right: 12px;
      display: flex;
      align-items: center;
      gap: 6px;
      padding: 0 0 0 10px;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--sheet);
      font-size: 13px;
    }
  `,
})
export class ShotPaneComponent implements AfterViewInit {
  private readonly stage = inject(Stage);
  private readonly control = inject(ViewControl);
  private readonly theme = inject(Theme);
  private readonly destroyed = inject(DestroyRef);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private waiting = false;

  readonly name = computed(() => {
    const now = this.stage.now();
    return (now && now.program.structure.parts[shotCamera(now.program, now.out)]?.name) ?? 'no camera';
  });

  constructor() {
    effect(() => {
      this.control.frames();
      this.theme.name();
      this.draw();
    });
  }

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(() => this.draw());
    observer.observe(this.canvas().nativeElement);
    this.destroyed.onDestroy(() => observer.disconnect());
    this.draw();
  }

  /** Of frames that come faster than they are drawn the last one is drawn. */
  private draw(): void {
    if (this.waiting) return;
    this.waiting = true;
    requestAnimationFrame(() => {
      const canvas = this.canvas().nativeElement;
      const { clientWidth: width, clientHeight: height } = canvas;
      const taken = this.control.shotDrawn({ width, height }, (drawn) => {
        this.waiting = false;
        if (!drawn) return;
        if (canvas.width !== drawn.width || canvas.height !== drawn.height)
          Object.assign(canvas, { width: drawn.width, height: drawn.height });
        canvas.getContext('2d', { alpha: false })?.drawImage(drawn, 0, 0);
      });
      if (!taken) this.waiting = false;
    });
  }
}
