import {
  HalfFloatType,
  ShaderMaterial,
  Vector2,
  WebGLRenderTarget,
  type PerspectiveCamera,
  type Scene,
  type WebGLRenderer,
} from 'three';
import { FullScreenQuad } from 'three/examples/jsm/postprocessing/Pass.js';

/** Draws a scene without smoothing its borders. Where the processor draws, this takes a third of the time. */
export class RoughPass {
  private readonly target = new WebGLRenderTarget(1, 1, { type: HalfFloatType });
  private readonly material = new ShaderMaterial({
    depthTest: false,
    depthWrite: false,
    uniforms: { picture: { value: this.target.texture } },
    vertexShader: `
      varying vec2 vUv;
      void main() {
        vUv = uv;
        gl_Position = vec4(position.xy, 0.0, 1.0);
      }`,
    // What is drawn elsewhere than on the page is in linear light; the page's canvas wants the standard of screens.
    fragmentShader: `
      uniform sampler2D picture;
      varying vec2 vUv;
      void main() {
        gl_FragColor = texture2D(picture, vUv);
        #include <colorspace_fragment>
      }`,
  });
  private readonly quad = new FullScreenQuad(this.material);

  draw(renderer: WebGLRenderer, scene: Scene, camera: PerspectiveCamera): void {
    const { x: width, y: height } = renderer.getDrawingBufferSize(new Vector2());
    this.target.setSize(width, height);
    renderer.setRenderTarget(this.target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    this.quad.render(renderer);
  }

  dispose(): void {
    this.target.dispose();
    this.material.dispose();
    this.quad.dispose();
  }
}
