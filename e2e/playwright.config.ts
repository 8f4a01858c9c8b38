import { defineConfig } from '@playwright/test';

const PORT = 4291;

/**
 * Debian's Chromium with rendering in software, one test after another: two cores draw one page well and two badly. Without a
 * GPU only the view is drawn by WebGL, which is three times as fast as drawing the whole page by it. The limits only end what
 * hangs: they leave room for a machine that is five times as slow.
 */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  timeout: 300_000,
  expect: { timeout: 30_000 },
  workers: 1,
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    permissions: ['clipboard-read', 'clipboard-write'],
    actionTimeout: 30_000,
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
