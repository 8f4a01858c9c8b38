/** What a user of the Drivetrain waits for: a network of 500 pieces against one of 50, opened and played in the real page. */
const [PIECES, FRAMES] = [5, 60];

/** So many machines of five pieces, each echoing the one before: about ten pieces of the network a machine. */
function network(machines) {
  const parts = [];
  const curves = [];
  const drivers = [];
  const echo = (target, input, gain) =>
    drivers.push({ id: `d${drivers.length}`, kind: 'echo', target, input, delay: 3, gain });
  for (let m = 0; m < machines; m++) {
    parts.push({ id: `m${m}`, name: `Machine ${m + 1}`, kind: 'group' });
    for (let p = 0; p < PIECES; p++) {
      parts.push({
        id: `m${m}p${p}`,
        name: `Piece ${m + 1}.${p + 1}`,
        kind: 'mesh',
        parent: `m${m}`,
        geometry: { shape: 'box', size: [0.2, 0.2, 0.2] },
        rest: { translate: [p * 0.4, 0.2, m * 0.4] },
      });
      if (p > 0) echo(`m${m}p${p}/translate.y`, `m${m}p${p - 1}/translate.y`, 0.9);
    }
    const keys = [0, 60, 120].map((frame) => ({ frame, value: frame === 60 ? 0.6 : 0.2 }));
    curves.push({ channel: `m${m}p0/translate.y`, keys });
    if (m > 0) echo(`m${m}/translate.x`, `m${m - 1}p${PIECES - 1}/translate.y`, 0.2);
  }
  return {
    format: 'kaizen',
    version: 1,
    id: `network-${machines}`,
    name: 'Network',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 120, loop: true },
    parts,
    clips: [{ id: 'main', name: 'Main', curves }],
    activeClip: 'main',
    drivers,
  };
}

/** Runs in the page: goes to the Drivetrain, and tells how long it takes until boxes are there and two more frames are drawn. */
async function goThere() {
  const next = () => new Promise((drawn) => requestAnimationFrame(drawn));
  const link = [...document.querySelectorAll('nav a')].find((each) => each.textContent === 'Drivetrain');
  const began = performance.now();
  link.click();
  while (!document.querySelector('kz-drivetrain .node')) await next();
  await next();
  await next();
  return performance.now() - began;
}

/** What the page does in a stepped frame, script, layout and paint together, in milliseconds. */
async function frameCost(page) {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const busy = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'TaskDuration').value * 1000;
  };
  const before = await busy();
  await page.evaluate(async (count) => {
    for (let i = 0; i < count; i++) {
      document.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
      await new Promise((drawn) => requestAnimationFrame(drawn));
    }
  }, FRAMES);
  return ((await busy()) - before) / FRAMES;
}

/** The medians of some openings and played frames for a network; `open` drops a project's text and waits for the Bench. */
async function cost(open, machines, unfolded) {
  const page = await open(JSON.stringify(network(machines)));
  const opened = [];
  for (let i = 0; i < 5; i++) {
    opened.push(await page.evaluate(goThere));
    await page.getByRole('link', { name: 'Bench' }).click();
    await page.locator('kz-rows-panel .row').first().waitFor();
  }
  await page.evaluate(goThere);
  const folded = page.getByRole('button', { name: 'Folded', exact: true });
  if (unfolded && (await folded.getAttribute('aria-pressed')) === 'true') await folded.click();
  const frames = [];
  for (let i = 0; i < 5; i++) frames.push(await frameCost(page));
  await page.context().close();
  const middle = (list) => list.sort((a, b) => a - b)[2];
  return { opened: middle(opened), frame: middle(frames) };
}

export async function measureDrivetrain(open) {
  const small = await cost(open, 5, true);
  const big = await cost(open, 50, true);
  const row = (what, ours, theirs) => ({
    what: `the Drivetrain: ${what}, with 500 pieces (${ours.toFixed(1)} ms), against 50 (${theirs.toFixed(1)} ms)`,
    measured: `${(ours / theirs).toFixed(2)} times as long`,
    wanted: 'at most 1.5',
    good: ours / theirs <= 1.5,
  });
  return [
    row('from the press until its boxes are drawn', big.opened, small.opened),
    row('a played frame, all unfolded: script, layout and paint', big.frame, small.frame),
  ];
}
