import { defineConfig } from '@playwright/test';

const PORT = 4291;

/**
 * Debian's Chromium with rendering in software, two files of tests side by side: one page by itself leaves nearly half of two cores
 * idle, as test, browser, page and drawing wait for each other. Without a GPU only the view is drawn by WebGL, which is three times
 * as fast as drawing the whole page by it. Nothing glides: each drawn frame costs the same here as one that shows something new. The
 * limits only end what hangs: they leave room for a machine that is ten times as slow, or stands still for a while.
 */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  timeout: 600_000,
  expect: { timeout: 60_000 },
  workers: 2,
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    contextOptions: { reducedMotion: 'reduce' },
    permissions: ['clipboard-read', 'clipboard-write'],
    actionTimeout: 60_000,
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      chromiumSandbox: false,
      args: [
        '--disable-gpu',
        '--enable-unsafe-swiftshader',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: 'node server/dist/main.js',
    cwd: '..',
    url: `http://localhost:${PORT}/health`,
    env: { PORT: String(PORT) },
    reuseExistingServer: false,
  },
});
