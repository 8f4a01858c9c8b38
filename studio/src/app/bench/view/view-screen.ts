import type { WebGLRenderer } from 'three';
import { soon } from '../../ui/soon';
import { drawsWithoutCard } from './without-card';

/** How often it is looked whether a drawing is finished, in milliseconds. */
const LOOK_EVERY = 4;

/** All that is to be drawn; the faces of all models but not all their edges; or less. */
export type DrawnSoFar = 'drawn' | 'faces' | 'drawing';

/** Something to draw, and what is done with it once it is finished. */
interface Drawing {
  readonly draw: () => void;
  readonly finished: (drawn: OffscreenCanvas) => void;
}

/**
 * Shows on a canvas of the page what a renderer draws on another one, out of sight. Where the processor draws in place of a
 * graphics card, a drawing takes a tenth of a second, and a canvas that is drawn on directly holds the page up for as long. Here
 * the page goes on meanwhile, and takes the drawing over when it is finished.
 */
export class ViewScreen {
  private readonly pen: CanvasRenderingContext2D;
  private readonly gl: WebGL2RenderingContext;
  private readonly slow: boolean;
  private toShow: Drawing | null = null;
  private readonly toTake: Drawing[] = [];
  private asked = false;
  private working = false;
  private prepared = false;
  private left = false;
  /** How much the drawing has that is shown. */
  private soFar: DrawnSoFar = 'drawing';

  constructor(
    renderer: WebGLRenderer,
    private readonly drawn: OffscreenCanvas,
    private readonly shown: HTMLCanvasElement,
    private readonly prepare: () => void,
    /** How much has come of what is to be drawn. */
    private readonly drawnSoFar: () => DrawnSoFar,
    /** Told how much each drawing has that is shown. */
    private readonly seen: (soFar: DrawnSoFar) => void,
  ) {
    this.pen = shown.getContext('2d', { alpha: false })!;
    shown.dataset['empty'] = '';
    this.gl = renderer.getContext() as WebGL2RenderingContext;
    this.slow = drawsWithoutCard(this.gl);
  }

  /**
   * Shows a drawing with the page's next frame, or right after that where the processor draws; the first one once what it needs is
   * prepared. Of those asked for while one is under way only the last is drawn.
   */
  show(draw: () => void): void {
    let soFar: DrawnSoFar = 'drawing';
    this.toShow = {
      draw: () => {
        soFar = this.drawnSoFar();
        draw();
      },
      finished: (drawn) => this.copy(drawn, soFar),
    };
    this.shown.dataset['state'] = 'drawing';
    if (this.asked) return;
    this.asked = true;
    const begin = () => {
      this.asked = false;
      void this.work();
    };
    // A processor that draws leaves little of itself to the page, whose own frame goes first.
    requestAnimationFrame(this.slow ? () => soon(begin) : begin);
  }

  /** Draws something that is not shown, and hands it over when it is finished; `atOnce` lets the page wait for it. */
  take(draw: () => void, finished: (drawn: OffscreenCanvas) => void, atOnce = false): void {
    if (atOnce) {
      draw();
      finished(this.drawn);
      return;
    }
    this.toTake.push({ draw, finished });
    void this.work();
  }

  leave(): void {
    this.left = true;
  }

  private async work(): Promise<void> {
    if (this.working) return;
    this.working = true;
    try {
      if (!this.prepared) {
        this.prepared = true;
        this.prepare();
        if (this.slow) await this.untilFinished();
      }
      for (let next = this.next(); next && !this.left; next = this.next()) {
        next.draw();
        if (this.slow) await this.untilFinished();
        if (!this.left) next.finished(this.drawn);
      }
    } finally {
      this.working = false;
    }
    this.shown.dataset['state'] = this.soFar;
  }

  private next(): Drawing | undefined {
    const { toShow } = this;
    this.toShow = null;
    return toShow ?? this.toTake.shift();
  }

  private async untilFinished(): Promise<void> {
    const { gl } = this;
    const mark = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    gl.flush();
    if (!mark) return;
    while (!this.left && !gl.isContextLost() && gl.getSyncParameter(mark, gl.SYNC_STATUS) !== gl.SIGNALED)
      await new Promise((done) => setTimeout(done, LOOK_EVERY));
    gl.deleteSync(mark);
  }

  private copy(drawn: OffscreenCanvas, soFar: DrawnSoFar): void {
    const { shown } = this;
    if (shown.width !== drawn.width || shown.height !== drawn.height)
      Object.assign(shown, { width: drawn.width, height: drawn.height });
    this.pen.drawImage(drawn, 0, 0);
    delete shown.dataset['empty'];
    this.soFar = soFar;
    this.seen(soFar);
    if (soFar === 'faces') shown.dataset['state'] = soFar;
  }
}
