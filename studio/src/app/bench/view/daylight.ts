import { Color, type Scene } from 'three';
import { token } from '../../ui/theme';
import { shadowMatrix, type Ground } from './ground';
import type { Inks } from './ink-material';
import { DRAWN, type Surroundings } from './surroundings';

/** How bright things are under a sky without light. */
const DARKEST = 0.4;

/** Light, shadow and sky of the view as the surroundings of a frame have them. */
export class Daylight {
  private surroundings: Surroundings = DRAWN;
  private height = 0;
  /** By what it is lit now. */
  private lit = '';

  constructor(
    private readonly inks: Inks,
    private readonly scene: Scene,
    private readonly ground: Ground,
  ) {}

  /** Whether what lights the view throws shadows. */
  get throwsShadows(): boolean {
    return this.surroundings.up;
  }

  /** How high the floor lies on which shadows fall. */
  get floor(): number {
    return this.height;
  }

  takeFloor(height: number): void {
    this.height = height;
    this.light();
  }

  take(surroundings: Surroundings): void {
    this.surroundings = surroundings;
    this.light();
  }

  /** Lights all anew, in the colours of the theme. */
  recolor(): void {
    this.lit = '';
    this.light();
  }

  /** Nothing where they are so already. */
  private light(): void {
    const { inks, floor } = this;
    const { towards, up, sky } = this.surroundings;
    const lit = [...towards.toArray(), up, sky, floor].join();
    if (lit === this.lit) return;
    this.lit = lit;
    inks.light.copy(towards);
    inks.direct.value = up ? 1 : 0;
    if (up) inks.flatten.copy(shadowMatrix(floor, towards));
    const night = document.documentElement.dataset['theme'] === 'night';
    inks.dim.value = (night ? 0.5 : 1) * (DARKEST + (1 - DARKEST) * sky);
    const dusk = new Color(token('view-dusk'));
    const [back, paper, grid, rule] = (['view-sky', 'paper', 'view-grid', 'rule'] as const).map((name) =>
      new Color(token(name)).lerp(dusk, 0.7 * (1 - sky)),
    );
    this.scene.background = back!;
    this.ground.recolor(paper!, grid!, rule!);
  }
}
