import { whenDrawn } from '../../../ui/when-drawn';
import { whenIdle } from '../../../ui/when-idle';
import { CrowdGrid, crowdPixels, type CrowdCurve, type CrowdWindow } from './crowd-grid';

/** A curve of a crowd: `source` is another object whenever the curve is another. */
export interface CrowdMember {
  readonly source: object;
  readonly curve: () => CrowdCurve;
}

/** A crowd, whose members are found when they are looked at; another object whenever one of them may be another. */
export interface Crowd {
  readonly channels: readonly string[];
  /** The curve of a channel; undefined where it has none. */
  readonly member: (channel: string) => CrowdMember | undefined;
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
  private readonly members = new Map<string, object>();
  private asked: Crowd | null = null;
  /** A crowd that is begun anew, and how many of its channels were looked at: with thousands that takes longer than drawing all else. */
  private fresh: { readonly crowd: Crowd; next: number } | null = null;
  private waiting: { readonly channel: string; readonly member: CrowdMember }[] = [];
  private readonly within = new Map<string, CrowdCurve>();
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
    else if (crowd !== this.asked && this.fresh) this.begin(window, crowd);
    else if (crowd !== this.asked) this.change(crowd);
    this.asked = crowd;
    if (!this.whole) this.schedule();
    else if (recolored) this.refresh();
  }

  private begin(window: CrowdWindow, crowd: Crowd): void {
    this.grid = new CrowdGrid(window);
    this.within.clear();
    this.members.clear();
    this.waiting = [];
    this.fresh = { crowd, next: 0 };
    this.shownAt = performance.now();
    this.first = this.image === null;
  }

  /** Looks at one more channel of a crowd that is begun anew. */
  private lookFurther(fresh: { readonly crowd: Crowd; next: number }): void {
    const { channels, member: memberOf } = fresh.crowd;
    const channel = channels[fresh.next++];
    if (channel === undefined) {
      this.fresh = null;
      return;
    }
    const member = memberOf(channel);
    if (member) this.lineUp(channel, member);
  }

  private lineUp(channel: string, member: CrowdMember): void {
    this.members.set(channel, member.source);
    this.waiting.push({ channel, member });
  }

  private change({ channels, member: memberOf }: Crowd): void {
    const { grid } = this;
    const members = new Map<string, CrowdMember>();
    for (const channel of channels) {
      const member = memberOf(channel);
      if (member) members.set(channel, member);
    }
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
      this.lineUp(channel, member);
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
    if (this.fresh?.next === 0 && this.first) whenDrawn(() => whenIdle(grow, REFRESH));
    else whenIdle(grow, REFRESH);
  }

  private grow(milliseconds: number): void {
    const end = performance.now() + milliseconds;
    while (!this.whole && performance.now() < end) {
      const next = this.waiting.pop();
      if (next) {
        const curve = next.member.curve();
        this.grid!.add(curve, 1);
        this.within.set(next.channel, curve);
      } else if (this.fresh) this.lookFurther(this.fresh);
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
