import { test as base, type BrowserContext, type Page } from '@playwright/test';

export { expect } from '@playwright/test';

/** A context with one page that goes from test to test: the browser has the studio's code compiled already. */
interface Lent {
  context: BrowserContext | null;
}

interface Choices {
  /** A page that no other test had or gets: for what closes, kills or crosses pages. */
  readonly ownPage: boolean;
}

/** Every page draws its view without smoothed edges: in software those take most of the time. */
async function withoutSmoothEdges(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    // eslint-disable-next-line @typescript-eslint/unbound-method -- called on the canvas it is asked of
    const getContext = HTMLCanvasElement.prototype.getContext as (
      this: HTMLCanvasElement,
      kind: string,
      options?: object,
    ) => unknown;
    HTMLCanvasElement.prototype.getContext = function (
      this: HTMLCanvasElement,
      kind: string,
      options?: object,
    ) {
      return getContext.call(
        this,
        kind,
        kind.startsWith('webgl') ? { ...options, antialias: false } : options,
      );
    } as typeof HTMLCanvasElement.prototype.getContext;
  });
}

/**
 * Makes a context as new, with one page: whatever the studio kept is gone. The page leaves the studio first, which would write its
 * project again when its storage is cleared.
 */
async function emptied(context: BrowserContext, media: Parameters<Page['emulateMedia']>[0]): Promise<void> {
  const [page, ...others] = context.pages();
  for (const other of others) await other.close();
  if (!page) return;
  await page.emulateMedia(media);
  await page.goto('/health');
  const devtools = await context.newCDPSession(page);
  const { origin } = new URL(page.url());
  await devtools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
  await devtools.detach();
}

export const test = base.extend<Choices, { readonly lent: Lent }>({
  ownPage: [false, { option: true }],
  // eslint-disable-next-line no-empty-pattern -- Playwright reads off the pattern what a fixture needs: nothing
  lent: [({}, use) => use({ context: null }), { scope: 'worker' }],
  context: async (
    { browser, lent, ownPage, baseURL, viewport, colorScheme, permissions, contextOptions },
    use,
    info,
  ) => {
    const make = async () => {
      const more = { ...(permissions && { permissions }), ...(baseURL && { baseURL }) };
      const made = await browser.newContext({ ...contextOptions, viewport, colorScheme, ...more });
      await withoutSmoothEdges(made);
      return made;
    };
    const context = (!ownPage && lent.context) || (await make());
    if (context === lent.context) lent.context = null;
    await use(context);
    if (ownPage || info.status !== info.expectedStatus) return context.close();
    await emptied(context, { colorScheme, reducedMotion: contextOptions.reducedMotion ?? null });
    lent.context = context;
  },
  page: async ({ context }, use) => use(context.pages()[0] ?? (await context.newPage())),
});
