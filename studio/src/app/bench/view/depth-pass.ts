import {
  DepthTexture,
  HalfFloatType,
  ShaderMaterial,
  UniformsUtils,
  Vector2,
  WebGLRenderTarget,
  type PerspectiveCamera,
  type Scene,
  type WebGLRenderer,
} from 'three';
import { FullScreenQuad } from 'three/examples/jsm/postprocessing/Pass.js';
import { BokehShader } from 'three/examples/jsm/shaders/BokehShader.js';

/** What a lens keeps sharp: lengths in metres. */
export interface Lens {
  readonly focusDistance: number;
  readonly focalLength: number;
  readonly fStop: number;
  readonly sensorHeight: number;
  /** How much more than the shot's frame is seen, in height. */
  readonly scale: number;
}

/** No disc of blur is wider than this, as a share of the picture's width: the pass takes few samples of it. */
const WIDEST = 0.02;

/**
 * How fast blur grows with the distance from what is sharp, as a share of the picture's height a metre: the circle of confusion of a
 * thin lens, f²/(N·(s − f)) · |z − s|/z, near the distance s that it is focused at; elsewhere it is s/z times as much.
 */
export function blurPerMetre({ focusDistance: s, focalLength: f, fStop, sensorHeight, scale }: Lens): number {
  const away = Math.max(f * 1.001, s);
  return (f * f) / (fStop * (away - f)) / away / (sensorHeight * scale);
}

/** Draws a scene as a lens sees it: what is nearer or farther than the focus is blurred, by the depth of each pixel. */
export class DepthPass {
  private readonly target = new WebGLRenderTarget(1, 1, { type: HalfFloatType, samples: 4 });
  private readonly material = new ShaderMaterial({
    defines: { DEPTH_PACKING: 0, PERSPECTIVE_CAMERA: 1 },
    uniforms: UniformsUtils.clone(BokehShader.uniforms),
    vertexShader: BokehShader.vertexShader,
    // The pass ends in linear light; the page's canvas wants the standard of screens.
    fragmentShader: BokehShader.fragmentShader
      .replace('gl_FragColor.a = 1.0;', 'gl_FragColor.a = 1.0;\n#include <colorspace_fragment>')
      // Its blur grows straight with the distance from the focus; a lens' grows as the distance itself has it.
      .replace('( focus + viewZ )', '( focus + viewZ ) * focus / max( 1e-4, - viewZ )'),
  });
  private readonly quad = new FullScreenQuad(this.material);

  constructor() {
    this.target.depthTexture = new DepthTexture(1, 1);
  }

  draw(renderer: WebGLRenderer, scene: Scene, camera: PerspectiveCamera, lens: Lens): void {
    const { x: width, y: height } = renderer.getDrawingBufferSize(new Vector2());
    this.target.setSize(width, height);
    renderer.setRenderTarget(this.target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    const { uniforms } = this.material;
    const set = (name: string, value: unknown) => (uniforms[name]!.value = value);
    set('tColor', this.target.texture);
    set('tDepth', this.target.depthTexture);
    set('focus', lens.focusDistance);
    // The pass counts in widths of the picture, and its samples reach 0.4 of what it is told.
    set('aperture', (blurPerMetre(lens) * height) / width / 2 / 0.4);
    set('maxblur', WIDEST);
    set('aspect', width / height);
    set('nearClip', camera.near);
    set('farClip', camera.far);
    this.quad.render(renderer);
  }

  dispose(): void {
    this.target.dispose();
    this.material.dispose();
    this.quad.dispose();
  }
}
