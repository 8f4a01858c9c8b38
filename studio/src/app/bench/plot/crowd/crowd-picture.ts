import { whenDrawn } from '../../../ui/when-drawn';
import { whenIdle } from '../../../ui/when-idle';
import { CrowdGrid, crowdPixels, type CrowdCurve, type CrowdWindow } from './crowd-grid';

/** A curve of a crowd: `source` is another object whenever the curve is another. */
export interface CrowdMember {
  readonly source: object;
  readonly curve: () => CrowdCurve;
}

/** The members of a crowd by channel, found when they are first looked at; another object whenever one of them may be another. */
export interface Crowd {
  readonly members: () => ReadonlyMap<string, CrowdMember>;
}

/** A picture of a crowd and where in time and value it lies. */
export interface CrowdImage {
  readonly canvas: CanvasImageSource;
  readonly window: CrowdWindow;
}

/** A crowd that is not whole yet grows for so long at a time, in milliseconds, when the page has nothing else to do. */
const SLICE = 7;
/** The picture is made anew so often while it grows. */
const REFRESH = 120;

/**
 * The picture of a strip's crowd, grown in slices while the page is idle. While a new one grows, as after a zoom, the old one stays and
 * is stretched to where it belongs; an edit takes the curves that changed out and puts them in again.
 */
export class CrowdPicture {
  private grid: CrowdGrid | null = null;
  private members = new Map<string, object>();
  private asked: Crowd | null = null;
  /** The members of a crowd that is begun anew, not looked at yet: with thousands that takes longer than drawing all else. */
  private fresh: Crowd | null = null;
  private waiting: { readonly channel: string; readonly member: CrowdMember }[] = [];
  private within = new Map<string, CrowdCurve>();
  private image: CrowdImage | null = null;
  private color: readonly [number, number, number] = [0, 0, 0];
  private scheduled = false;
  private shownAt = 0;
  /** Nothing was there before: then it is seen growing. */
  private first = true;

  constructor(private readonly onGrown: () => void) {}

  /** What can be drawn now; null while there is nothing yet. */
  get shown(): CrowdImage | null {
    return this.image;
  }

  /** Whether all of the crowd is in the picture. */
  get whole(): boolean {
    return this.waiting.length === 0 && this.fresh === null;
  }

  ask(window: CrowdWindow, crowd: Crowd, color: readonly [number, number, number]): void {
    const recolored = color.some((part, i) => part !== this.color[i]);
    this.color = color;
    if (!this.grid || !sameWindow(this.grid.window, window)) this.begin(window, crowd);
    else if (crowd !== this.asked && this.fresh) this.fresh = crowd;
    else if (crowd !== this.asked) this.change(crowd.members());
    this.asked = crowd;
    if (!this.whole) this.schedule();
    else if (recolored) this.refresh();
  }

  private begin(window: CrowdWindow, crowd: Crowd): void {
    this.grid = new CrowdGrid(window);
    this.within.clear();
    this.fresh = crowd;
    this.shownAt = performance.now();
    this.first = this.image === null;
  }

  private takeFresh(): void {
    const members = this.fresh?.members();
    if (!members) return;
    this.fresh = null;
    this.members = new Map();
    this.waiting = [];
    for (const [channel, member] of members) {
      this.members.set(channel, member.source);
      this.waiting.push({ channel, member });
    }
  }

  private change(members: ReadonlyMap<string, CrowdMember>): void {
    const { grid } = this;
    let changed = false;
    for (const [channel, source] of this.members) {
      if (members.get(channel)?.source === source) continue;
      const drawn = this.within.get(channel);
      if (drawn) grid!.add(drawn, -1);
      this.within.delete(channel);
      this.members.delete(channel);
      this.waiting = this.waiting.filter((each) => each.channel !== channel);
      changed = true;
    }
    for (const [channel, member] of members) {
      if (this.members.has(channel)) continue;
      this.members.set(channel, member.source);
      this.waiting.push({ channel, member });
      changed = true;
    }
    if (changed) {
      this.grow(SLICE);
      this.refresh();
    }
  }

  private schedule(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    const grow = () => {
      this.scheduled = false;
      this.takeFresh();
      this.grow(SLICE);
      const now = performance.now();
      if (this.whole || (this.first && now - this.shownAt > REFRESH)) {
        this.shownAt = now;
        this.refresh();
        this.onGrown();
      }
      if (!this.whole) this.schedule();
    };
    // What stands around the first picture is seen before that begins to grow.
    if (this.fresh && this.first) whenDrawn(() => whenIdle(grow, REFRESH));
    else whenIdle(grow, REFRESH);
  }

  private grow(milliseconds: number): void {
    const end = performance.now() + milliseconds;
    while (this.waiting.length > 0 && performance.now() < end) {
      const { channel, member } = this.waiting.pop()!;
      const curve = member.curve();
      this.grid!.add(curve, 1);
      this.within.set(channel, curve);
    }
  }

  private refresh(): void {
    const { window, counts } = this.grid!;
    const canvas = document.createElement('canvas');
    canvas.width = window.columns;
    canvas.height = window.rows;
    const pen = canvas.getContext('2d');
    if (!pen) return;
    const pixels = pen.createImageData(window.columns, window.rows);
    crowdPixels(counts, this.color, pixels.data);
    pen.putImageData(pixels, 0, 0);
    this.image = { canvas, window };
  }
}

function sameWindow(a: CrowdWindow, b: CrowdWindow): boolean {
  return (
    a.from === b.from &&
    a.step === b.step &&
    a.columns === b.columns &&
    a.rows === b.rows &&
    a.low === b.low &&
    a.high === b.high
  );
}
