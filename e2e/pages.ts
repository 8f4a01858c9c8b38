import { expect, type Download, type Locator, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

/** The Chart's scales, as the canvas tells them. */
interface Scales {
  readonly first: number;
  readonly last: number;
  readonly strips: readonly {
    readonly unit: string;
    readonly top: number;
    readonly height: number;
    readonly low: number;
    readonly high: number;
  }[];
}

/** The Bench as a user has it: rows, Chart, fields, by what they show. */
export class Bench {
  readonly canvas: Locator;
  readonly view: Locator;

  constructor(readonly page: Page) {
    this.canvas = page.locator('kz-chart canvas[data-axis]').first();
    this.view = page.locator('kz-view .frame');
  }

  static async openSample(page: Page, name: string): Promise<Bench> {
    await page.goto('/');
    await page.getByRole('button', { name: `Open the sample ${name}`, exact: true }).click();
    const bench = new Bench(page);
    await bench.ready();
    return bench;
  }

  async ready(): Promise<void> {
    await expect(this.canvas).toBeVisible();
    await expect(this.page.locator('kz-rows-panel .row').first()).toBeVisible();
    await this.settled();
  }

  /** Two drawn frames later, and once no more work waits, everything that an event set off is on the screen. */
  async settled(): Promise<void> {
    await this.page.evaluate(async () => {
      const frame = () => new Promise((drawn) => requestAnimationFrame(drawn));
      await frame();
      await frame();
      const { scheduler } = globalThis as unknown as {
        scheduler: { postTask(run: () => void, how: object): Promise<void> };
      };
      await scheduler.postTask(() => undefined, { priority: 'background' });
    });
  }

  row(id: string): Locator {
    return this.page.locator(`[data-row="${id}"]`);
  }

  /** Scrolls the rows until one of them is there; only those in sight are. */
  async reveal(id: string): Promise<void> {
    const rows = this.page.locator('cdk-virtual-scroll-viewport');
    for (let top = 0; (await this.row(id).count()) === 0 && top < 4000; top += 200) {
      await rows.evaluate((element, to) => element.scrollTo(0, to), top);
      await this.settled();
    }
  }

  /** A row's value at the playhead, as a number. */
  async value(channel: string): Promise<number> {
    await this.settled();
    await this.reveal(channel);
    const text = await this.row(channel).locator('kz-value-cell .numbers').innerText();
    return Number(text.replace('−', '-'));
  }

  /** Types into a number field, once it is the one of what was chosen last, and leaves it. */
  async type(name: string, text: string): Promise<void> {
    await this.settled();
    const field = this.page.getByRole('textbox', { name, exact: true });
    await field.fill(text);
    await field.press('Enter');
    await field.blur();
    await this.settled();
  }

  /** What a number field shows, once everything that was done before is on the screen. */
  async field(name: string): Promise<string> {
    await this.settled();
    return this.page.getByRole('textbox', { name, exact: true }).inputValue();
  }

  /** Takes the pointer away from everything that has a tooltip, so that none lies over what is pressed next. */
  async calm(): Promise<void> {
    await this.page.mouse.move(400, 300);
    await expect(this.page.getByRole('tooltip')).toHaveCount(0);
  }

  async goTo(frame: number): Promise<void> {
    await this.type('Frame of the playhead', String(frame));
  }

  async undoLabel(): Promise<string> {
    const undo = this.page.getByRole('button', { name: 'Undo' });
    await undo.hover();
    return (await this.page.getByRole('tooltip').first().innerText()).replace('Undo: ', '');
  }

  async scales(): Promise<Scales> {
    await this.settled();
    const [first = 0, last = 1] = ((await this.canvas.getAttribute('data-axis')) ?? '')
      .split(' ')
      .map(Number);
    const strips = ((await this.canvas.getAttribute('data-strips')) ?? '').split('; ').map((text) => {
      const [unit = '', ...numbers] = text.split(' ');
      const [top = 0, height = 1, low = 0, high = 1] = numbers.map(Number);
      return { unit, top, height, low, high };
    });
    return { first, last, strips };
  }

  /** Where a frame and a value of a strip are on the page. */
  async place(frame: number, value: number, unit: string): Promise<{ x: number; y: number }> {
    const box = (await this.canvas.boundingBox())!;
    const { first, last, strips } = await this.scales();
    const strip = strips.find((candidate) => candidate.unit === unit)!;
    return {
      x: box.x + ((frame - first) / (last - first)) * box.width,
      y: box.y + strip.top + strip.height * (1 - (value - strip.low) / (strip.high - strip.low)),
    };
  }

  /** Where a frame is across the page. */
  async frameX(frame: number): Promise<number> {
    const box = (await this.canvas.boundingBox())!;
    const { first, last } = await this.scales();
    return box.x + ((frame - first) / (last - first)) * box.width;
  }

  /** Drags from one place of the page to another in some steps, as a hand does. */
  async drag(from: { x: number; y: number }, to: { x: number; y: number }, release = true): Promise<void> {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    for (let i = 1; i <= 6; i++) {
      await this.page.mouse.move(from.x + ((to.x - from.x) * i) / 6, from.y + ((to.y - from.y) * i) / 6);
    }
    if (release) await this.page.mouse.up();
    await this.settled();
  }

  async kept(): Promise<void> {
    await expect(this.page.locator('kz-keep-line')).toContainText(/kept in this browser, \d+ s ago/);
  }

  /** Saves the project by its shortcut and gives the file's path. */
  async save(): Promise<string> {
    const download = this.page.waitForEvent('download');
    await this.page.keyboard.press('Control+s');
    return pathOf(await download);
  }
}

export async function pathOf(download: Download): Promise<string> {
  const folder = await download.path();
  const named = `${folder}-${download.suggestedFilename()}`;
  await download.saveAs(named);
  return named;
}

/** Opens a project by dropping its file on the page. */
export async function dropped(page: Page, project: object): Promise<Bench> {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'New, empty' })).toBeVisible();
  const bytes = new TextEncoder().encode(JSON.stringify(project));
  await drop(page, [{ name: 'dropped.kaizen.json', bytes }]);
  const bench = new Bench(page);
  await bench.ready();
  return bench;
}

/** Drops files on the page, as from a folder. */
export async function drop(
  page: Page,
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
): Promise<void> {
  const plain = files.map(({ name, bytes }) => ({ name, base64: Buffer.from(bytes).toString('base64') }));
  const transfer = await page.evaluateHandle((list) => {
    const made = new DataTransfer();
    for (const { name, base64 } of list) {
      made.items.add(new File([Uint8Array.from(atob(base64), (character) => character.charCodeAt(0))], name));
    }
    return made;
  }, plain);
  await page.dispatchEvent('kz-root', 'drop', { dataTransfer: transfer });
}

export function readJson(path: string): Record<string, unknown> {
  return JSON.parse(readFileSync(path, 'utf8')) as Record<string, unknown>;
}

export interface SavedKey {
  readonly frame: number;
  readonly value: number;
  readonly in?: { readonly mode?: string; readonly slope?: number; readonly reach?: number };
  readonly out?: { readonly mode?: string; readonly slope?: number; readonly reach?: number };
  readonly leg?: { readonly kind: string };
}
export interface SavedCurve {
  readonly channel: string;
  readonly keys: readonly SavedKey[];
  readonly after?: { readonly mode: string; readonly pin?: number };
  readonly treatments?: readonly Record<string, unknown>[];
}

/** The curves of a saved project's first clip. */
export function curvesIn(file: string): readonly SavedCurve[] {
  return (readJson(file)['clips'] as { curves: SavedCurve[] }[])[0]!.curves;
}

/** One channel's curve in a saved project. */
export function curveIn(file: string, channel: string): SavedCurve {
  return curvesIn(file).find((curve) => curve.channel === channel)!;
}

export const tab = (page: Page, name: string) => page.getByRole('tab', { name }).click();
export const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** Chooses one channel by its row. */
export async function chooseChannel(bench: Bench, id: string): Promise<void> {
  await bench.reveal(id);
  await bench.row(id).locator('.name').click();
  await bench.settled();
}
