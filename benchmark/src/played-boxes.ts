import { compile, DEFAULT_PART, defaultBlock, keyValues, newProject, type Part } from '@kaizen/core';
import {
  BackSide,
  BoxGeometry,
  EdgesGeometry,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  type PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from 'three';
import { StageScene } from '../../studio/src/app/bench/view/stage-scene';
import { measure, type Result } from './measure';

const COUNT = 1000;
const [WIDTH, HEIGHT] = [640, 360];
const SIZE = [0.5, 0.5, 0.5] as const;

function placeOf(i: number): readonly [number, number, number] {
  return [(i % 40) - 20, 0.3, Math.floor(i / 40) - 12];
}

/** A project of boxes that all move. */
function boxes() {
  const parts = Array.from({ length: COUNT }, (_, i): Part => {
    const rest = { translate: placeOf(i), rotate: [0, 0, 0] as const, scale: [1, 1, 1] as const };
    const geometry = { shape: 'box', size: SIZE } as const;
    const material = defaultBlock('material');
    return {
      ...DEFAULT_PART,
      id: `box-${i}`,
      name: `Box ${i}`,
      kind: 'mesh',
      rest,
      geometry,
      material,
      morphs: [],
    } as unknown as Part;
  });
  const project = { ...newProject('boxes', 'Boxes'), parts };
  return keyValues(
    project,
    parts.flatMap(({ id }, i) =>
      [0, 50, 100].map((frame) => ({ channel: `${id}/rotate.y`, frame, value: frame * 3 + i })),
    ),
  );
}

/** Bare three.js: a mesh, an outline of back faces and its edges for each box; matrices are set, nothing is worked out. */
function bare(canvas: HTMLCanvasElement) {
  const renderer = new WebGLRenderer({ canvas, antialias: true });
  renderer.setSize(WIDTH, HEIGHT, false);
  const scene = new Scene();
  const box = new BoxGeometry(...SIZE);
  const edges = new EdgesGeometry(box);
  const fill = new MeshBasicMaterial({ color: 0xcccccc });
  const outline = new MeshBasicMaterial({ color: 0x222222, side: BackSide });
  const ink = new LineBasicMaterial({ color: 0x444444 });
  const all = Array.from({ length: COUNT }, () => {
    const mesh = new Mesh(box, fill);
    const around = new Mesh(box, outline);
    around.scale.setScalar(1.03);
    mesh.add(around, new LineSegments(edges, ink));
    scene.add(mesh);
    return mesh;
  });
  let frame = 0;
  return {
    renderer,
    draw: (camera: PerspectiveCamera) => {
      frame++;
      all.forEach((mesh, i) => {
        mesh.position.set(...placeOf(i));
        mesh.rotation.y = ((frame * 3 + i) * Math.PI) / 180;
      });
      renderer.render(scene, camera);
    },
  };
}

/** Waits until what was drawn is there: reading one pixel back ends all work on the canvas. */
function finish(renderer: WebGLRenderer): void {
  const gl = renderer.getContext();
  gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
}

export function playedBoxes(): Result[] {
  const project = boxes();
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const program = compiled.value;
  const out = program.createOutput();
  const ours = new StageScene(
    document.createElement('canvas'),
    () => null,
    (run) => run(),
  );
  ours.resize(WIDTH, HEIGHT);
  ours.setProject(project);
  const theirs = bare(document.createElement('canvas'));
  for (const camera of [ours.camera]) {
    camera.position.set(0, 14, 26);
    camera.lookAt(0, 0, 0);
    camera.updateMatrixWorld(true);
  }
  const target = new Vector3();
  let frame = 0;
  const [played, drawn] = measure([
    {
      name: 'played',
      run: () => {
        frame = (frame + 1) % 100;
        program.run(frame, out);
        ours.setFrame(program, out);
        ours.draw(target);
        finish(ours.renderer);
      },
    },
    {
      name: 'bare',
      run: () => {
        theirs.draw(ours.camera);
        finish(theirs.renderer);
      },
    },
  ]) as [number, number];
  return [
    {
      what: `a played frame of 1,000 moving boxes at ${WIDTH}x${HEIGHT}, evaluated and drawn with ground and shadows (${played.toFixed(1)} ms until the pixels are there), against bare three.js drawing the same meshes, hulls and edges (${drawn.toFixed(1)} ms)`,
      measured: `${(played / drawn).toFixed(2)} times the cost`,
      wanted: 'at most 1.5',
      good: played / drawn <= 1.5,
    },
  ];
}
