import { Document, NodeIO } from '@gltf-transform/core';

/** What a user waits for who brings a model of a million triangles: until all of it is seen on the Bench. */
const [NODES, ROUND, ALONG] = [2000, 26, 10];

/** A GLB of beads on a floor, each a mesh of its own: 2,000 nodes of 520 triangles. */
async function beads() {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const accessor = (type, array) => document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  for (let n = 0; n < NODES; n++) {
    const { positions, normals, indices } = bead();
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', positions))
      .setAttribute('NORMAL', accessor('VEC3', normals))
      .setIndices(accessor('SCALAR', indices));
    const node = document.createNode(`Bead ${n}`).setMesh(document.createMesh().addPrimitive(primitive));
    scene.addChild(node.setTranslation([(n % 50) - 25, 0.4, Math.floor(n / 50) - 20]));
  }
  return Buffer.from(await new NodeIO().writeBinary(document));
}

/** A sphere drawn out along y. */
function bead() {
  const [positions, normals, indices] = [[], [], []];
  for (let j = 0; j <= ALONG; j++)
    for (let i = 0; i <= ROUND; i++) {
      const [down, around] = [(j / ALONG) * Math.PI, (i / ROUND) * 2 * Math.PI];
      const [x, y, z] = [
        Math.sin(down) * Math.cos(around),
        Math.cos(down),
        Math.sin(down) * Math.sin(around),
      ];
      positions.push(0.2 * x, 0.3 * y, 0.2 * z);
      normals.push(x, y, z);
    }
  for (let j = 0; j < ALONG; j++)
    for (let i = 0; i < ROUND; i++) {
      const at = j * (ROUND + 1) + i;
      indices.push(at, at + 1, at + ROUND + 1, at + ROUND + 1, at + 1, at + ROUND + 2);
    }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    indices: Uint16Array.from(indices),
  };
}

/** Runs in the page: drops the model on it, and tells how long it takes until all its faces are seen. */
function dropModel() {
  const transfer = new DataTransfer();
  transfer.items.add(new File([window.model], 'beads.glb'));
  const began = performance.now();
  window.tasks.length = 0;
  const seen = new Promise((done) => {
    const canvas = document.querySelector('kz-view canvas[data-state]');
    let begun = false;
    const observer = new MutationObserver(() => {
      const { state } = canvas.dataset;
      begun ||= state === 'drawing';
      if (!begun || state === 'drawing') return;
      observer.disconnect();
      done(performance.now() - began);
    });
    observer.observe(canvas, { attributeFilter: ['data-state'] });
  });
  document
    .querySelector('kz-root')
    .dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
  return seen;
}

/** Rows of what bringing a model costs. `opened` gives a page with a project on the Bench, `reference` is a script with `readAndDrawn`. */
export async function measureModel(browser, opened, project, reference) {
  const glb = await beads();
  const turns = [];
  // by turns, so that whatever else the machine does meets both alike
  for (let turn = 0; turn < 5; turn++)
    turns.push({ ...(await onBench(glb, opened, project)), other: await bare(browser, glb, reference) });
  const [own, longest, other] = ['own', 'longest', 'other'].map(
    (name) => turns.map((each) => each[name]).sort((a, b) => a - b)[2],
  );
  return {
    what: `a model of ${((NODES * ROUND * ALONG * 2) / 1e6).toFixed(2)} million triangles in 2,000 nodes brought onto the Bench until all its faces are seen, their borders not yet smoothed (${own.toFixed(0)} ms, the middle of five; longest task of the page ${longest.toFixed(0)} ms; Chromium without a GPU), against gltf-transform’s read and three.js drawing it once (${other.toFixed(0)} ms)`,
    measured: `${(own / other).toFixed(2)} times as long`,
    wanted: 'at most 1.5',
    good: own / other <= 1.5,
  };
}

async function onBench(glb, opened, project) {
  const page = await opened(project);
  await handOver(page, glb);
  const own = await page.evaluate(dropModel);
  const longest = await page.evaluate(() => Math.max(0, ...window.tasks));
  await page.close();
  return { own, longest };
}

async function bare(browser, glb, reference) {
  const page = await browser.newPage();
  await page.setContent('<!doctype html><body></body>');
  await page.addScriptTag({ content: reference, type: 'module' });
  await page.waitForFunction(() => window.readAndDrawn);
  await handOver(page, glb);
  const took = await page.evaluate(async () => window.readAndDrawn(await window.model.arrayBuffer()));
  await page.close();
  return took;
}

/** Leaves the bytes of the model in a page as `model`, by pieces that a message can carry. */
async function handOver(page, glb) {
  await page.evaluate(() => (window.pieces = []));
  for (let at = 0; at < glb.length; at += 4e6)
    await page.evaluate(
      (text) => window.pieces.push(Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0))),
      glb.subarray(at, at + 4e6).toString('base64'),
    );
  await page.evaluate(() => (window.model = new Blob(window.pieces)));
}
