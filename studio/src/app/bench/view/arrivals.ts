/** Things that arrive in great numbers are shown so often at most, in milliseconds: to draw a part of them takes as long as all. */
const SHOW_EVERY = 2000;

/** Things that are on their way to the view: how many of those awaited have come, and when to show them. */
export class Arrivals {
  private awaited = 0;
  private come = 0;
  private shownAt = 0;

  constructor(
    private readonly show: () => void,
    /** Told the share that has come, 0 to 1, after each. */
    private readonly tell: (share: number) => void = () => undefined,
  ) {}

  get isOver(): boolean {
    return this.awaited === 0;
  }

  await(): void {
    if (this.awaited === 0) this.shownAt = performance.now();
    this.awaited++;
  }

  arrived(): void {
    this.come++;
    const over = this.come === this.awaited;
    const share = this.come / this.awaited;
    if (over) this.awaited = this.come = 0;
    this.tell(share);
    const now = performance.now();
    if (!over && now - this.shownAt < SHOW_EVERY) return;
    this.shownAt = now;
    this.show();
  }
}
