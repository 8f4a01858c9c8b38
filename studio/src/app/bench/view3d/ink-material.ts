import { BackSide, type Color, DoubleSide, ShaderMaterial, type Vector2, Vector3, type Texture } from 'three';

/** Where the light of the drawing comes from, in the world. */
export const LIGHT = new Vector3(0.45, 0.85, 0.4).normalize();

/** Flat fills in three tones by the light, no gradient: what a technical drawing on paper has. */
export function fillMaterial(color: Color, map: Texture | null = null): ShaderMaterial {
  return new ShaderMaterial({
    side: DoubleSide,
    uniforms: {
      color: { value: color },
      light: { value: LIGHT },
      map: { value: map },
      textured: { value: map !== null },
    },
    vertexShader: `
      varying vec3 vNormal;
      varying vec2 vUv;
      void main() {
        vUv = uv;
        vNormal = normalMatrix * normal;
        gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
      }`,
    fragmentShader: `
      uniform vec3 color;
      uniform vec3 light;
      uniform sampler2D map;
      uniform bool textured;
      varying vec3 vNormal;
      varying vec2 vUv;
      void main() {
        vec3 n = normalize(gl_FrontFacing ? vNormal : -vNormal);
        float lit = dot(n, normalize((viewMatrix * vec4(light, 0.0)).xyz));
        float tone = lit > 0.62 ? 1.0 : lit > 0.02 ? 0.9 : 0.77;
        vec3 base = textured ? color * texture2D(map, vUv).rgb : color;
        gl_FragColor = vec4(base * tone, 1.0);
        #include <colorspace_fragment>
      }`,
  });
}

/** The silhouette: the back faces pushed outwards by a width in pixels. */
export function outlineMaterial(color: Color, size: Vector2, width: number): ShaderMaterial {
  return new ShaderMaterial({
    side: BackSide,
    uniforms: { color: { value: color }, size: { value: size }, width: { value: width } },
    vertexShader: `
      uniform vec2 size;
      uniform float width;
      attribute vec3 outward;
      void main() {
        vec4 place = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
        vec3 n = normalMatrix * outward;
        vec2 aside = length(n.xy) > 1e-5 ? normalize(n.xy) : vec2(0.0);
        place.xy += aside * width * 2.0 / size * place.w;
        gl_Position = place;
      }`,
    fragmentShader: `
      uniform vec3 color;
      void main() {
        gl_FragColor = vec4(color, 1.0);
        #include <colorspace_fragment>
      }`,
  });
}

/**
 * The ground: paper with lines every metre and stronger ones every ten, fading out with the distance from what is looked at,
 * and where they would be finer than pixels.
 */
export function groundMaterial(
  colors: { readonly paper: Color; readonly fine: Color; readonly coarse: Color },
  centre: Vector3,
  reach: { value: number },
): ShaderMaterial {
  return new ShaderMaterial({
    depthWrite: false,
    uniforms: {
      paper: { value: colors.paper },
      fine: { value: colors.fine },
      coarse: { value: colors.coarse },
      centre: { value: centre },
      reach,
    },
    vertexShader: `
      varying vec2 vPlace;
      void main() {
        vec4 place = modelMatrix * vec4(position, 1.0);
        vPlace = place.xz;
        gl_Position = projectionMatrix * viewMatrix * place;
      }`,
    fragmentShader: `
      uniform vec3 paper;
      uniform vec3 fine;
      uniform vec3 coarse;
      uniform vec3 centre;
      uniform float reach;
      varying vec2 vPlace;
      float lines(float step) {
        vec2 cell = vPlace / step;
        vec2 width = fwidth(cell);
        vec2 off = abs(fract(cell - 0.5) - 0.5) / width;
        vec2 ink = (1.0 - min(off, 1.0)) * clamp(1.6 - width * 3.0, 0.0, 1.0);
        return max(ink.x, ink.y);
      }
      void main() {
        float fade = clamp(1.0 - distance(vPlace, centre.xz) / reach, 0.0, 1.0);
        vec3 color = mix(paper, fine, lines(1.0) * fade);
        color = mix(color, coarse, lines(10.0) * fade);
        gl_FragColor = vec4(color, 1.0);
        #include <colorspace_fragment>
      }`,
  });
}
