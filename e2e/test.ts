import { test as base } from '@playwright/test';

export { expect } from '@playwright/test';

/** Every page draws its view without smoothed edges: in software those take most of the time. */
export const test = base.extend({
  context: async ({ context }, use) => {
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
    await use(context);
  },
});
