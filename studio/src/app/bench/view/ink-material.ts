import {
  type Color,
  DoubleSide,
  FrontSide,
  Matrix3,
  type Matrix4,
  ShaderMaterial,
  type Side,
  type Vector2,
  type Vector3,
  type Texture,
} from 'three';

/** What all drawing shares; changed in place with the theme and the size of the view. */
export interface Inks {
  readonly ink: Color;
  readonly edge: Color;
  readonly select: Color;
  readonly shadow: Color;
  /** Of the view, in pixels. */
  readonly size: Vector2;
  /** Towards the light, in the world, and whether it shines directly (1) or not (0). */
  readonly light: Vector3;
  readonly direct: { value: number };
  /** How much the night dims the fills. */
  readonly dim: { value: number };
  /** Lays things flat on the floor. */
  readonly flatten: Matrix4;
}

/** A normal goes with the cofactors of a matrix: right under any scale, mirrored ones too. */
const TURNING = `
  mat3 turning(mat3 m) {
    vec3 c0 = cross(m[1], m[2]);
    float way = dot(m[0], c0) < 0.0 ? -1.0 : 1.0;
    return mat3(c0, cross(m[2], m[0]), cross(m[0], m[1])) * way;
  }`;

/** What only a fill with a picture on it passes from corners to pixels. */
const PLACE_ON_PICTURE = `
      #ifdef PICTURED
        varying vec2 vUv;
      #endif`;

/**
 * Flat fills in three tones by the light, no gradient: what a technical drawing on paper has. What is smooth or of metal has one
 * flat highlight more, what is see-through is stippled.
 */
export function fillMaterial(
  { dim, light, direct }: Inks,
  map: Texture | null = null,
  side: Side = DoubleSide,
): ShaderMaterial {
  return new ShaderMaterial({
    side,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
    defines: map ? { PICTURED: '' } : {},
    uniforms: {
      light: { value: light },
      direct,
      dim,
      map: { value: map },
      onPicture: { value: placing(map) },
    },
    vertexShader: `
      attribute mat4 placed;
      attribute vec4 tone;
      attribute vec4 glow;
      attribute vec2 surface;
      uniform mat3 onPicture;
      varying vec3 vNormal;
      varying vec3 vPlace;
      ${PLACE_ON_PICTURE}
      flat varying vec4 vTone;
      flat varying vec3 vGlow;
      flat varying vec2 vSurface;
      ${TURNING}
      void main() {
        #ifdef PICTURED
          vUv = (onPicture * vec3(uv, 1.0)).xy;
        #endif
        vNormal = turning(mat3(placed)) * normal;
        vec4 place = placed * vec4(position, 1.0);
        vPlace = place.xyz;
        vTone = tone;
        vGlow = glow.rgb;
        vSurface = surface;
        gl_Position = projectionMatrix * (viewMatrix * place);
      }`,
    fragmentShader: `
      uniform vec3 light;
      uniform float direct;
      uniform float dim;
      uniform sampler2D map;
      varying vec3 vNormal;
      varying vec3 vPlace;
      ${PLACE_ON_PICTURE}
      flat varying vec4 vTone;
      flat varying vec3 vGlow;
      flat varying vec2 vSurface;
      float stipple(vec2 at) {
        vec2 cell = mod(floor(at), 4.0);
        vec2 half_ = mod(cell, 2.0);
        float fine = mod(half_.x * 2.0 + half_.y * 3.0, 4.0);
        vec2 rough = floor(cell / 2.0);
        return (fine * 4.0 + mod(rough.x * 2.0 + rough.y * 3.0, 4.0) + 0.5) / 16.0;
      }
      void main() {
        if (vTone.a < 1.0 && stipple(gl_FragCoord.xy) >= vTone.a) discard;
        vec3 n = normalize(gl_FrontFacing ? vNormal : -vNormal);
        float lit = direct > 0.5 ? dot(n, light) : -1.0;
        float metal = vSurface.y;
        float low = mix(0.77, 0.62, metal);
        float tone = lit > 0.62 ? 1.0 : lit > 0.02 ? mix(0.9, 0.82, metal) : low;
        float shine = max(0.0, 0.7 - vSurface.x) / 0.7;
        float spot = 0.0;
        if (shine > 0.0 && direct > 0.5) {
          float bright = dot(n, normalize(light + normalize(cameraPosition - vPlace)));
          spot = bright > 1.0 - 0.09 * shine ? mix(0.35, 0.6, metal) : 0.0;
        }
        vec3 base = vTone.rgb;
        #ifdef PICTURED
          base *= texture2D(map, vUv).rgb;
        #endif
        gl_FragColor = vec4(mix(base * tone, vec3(1.0), spot) * dim + vGlow, 1.0);
        #include <colorspace_fragment>
      }`,
  });
}

/** How a picture is moved, turned and sized on what it lies on. */
function placing(map: Texture | null): Matrix3 {
  map?.updateMatrix();
  return map?.matrix ?? new Matrix3();
}

/** Widths of lines in pixels: the silhouette, a crease within it, and how much wider both are of what is chosen. */
const WIDTHS = { silhouette: 1.35, crease: 0.75, chosen: 1.9 };

/** Edges as lines of a width in pixels: the silhouette, found anew in each view, and the creases within it. */
export function edgeMaterial({ ink, edge, select, size }: Inks): ShaderMaterial {
  return new ShaderMaterial({
    side: DoubleSide,
    uniforms: {
      ink: { value: ink },
      edge: { value: edge },
      select: { value: select },
      size: { value: size },
    },
    vertexShader: `
      attribute mat4 placed;
      attribute vec4 glow;
      attribute vec3 end;
      attribute vec3 left;
      attribute vec3 right;
      attribute vec3 corner;
      uniform vec2 size;
      uniform vec3 ink;
      uniform vec3 edge;
      uniform vec3 select;
      varying vec3 vColor;
      ${TURNING}
      const float NEAREST = -0.01;
      void main() {
        mat3 turn = turning(mat3(placed));
        vec4 a = placed * vec4(position, 1.0);
        vec3 sight = a.xyz - cameraPosition;
        bool leftSeen = dot(turn * left, sight) < 0.0;
        bool rightSeen = dot(turn * right, sight) < 0.0;
        bool silhouette = leftSeen != rightSeen;
        bool shown = silhouette || (corner.z > 0.5 && leftSeen);
        gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
        if (!shown) return;
        a = viewMatrix * a;
        vec4 b = viewMatrix * (placed * vec4(end, 1.0));
        if (a.z > NEAREST && b.z > NEAREST) return;
        if (a.z > NEAREST) a = mix(b, a, (NEAREST - b.z) / (a.z - b.z));
        if (b.z > NEAREST) b = mix(a, b, (NEAREST - a.z) / (b.z - a.z));
        vec4 from = projectionMatrix * a;
        vec4 to = projectionMatrix * b;
        vec2 way = (to.xy / to.w - from.xy / from.w) * size;
        way = length(way) > 1e-4 ? normalize(way) : vec2(1.0, 0.0);
        bool chosen = glow.a > 0.5;
        float width = (silhouette ? ${WIDTHS.silhouette} : ${WIDTHS.crease}) * (chosen ? ${WIDTHS.chosen} : 1.0);
        vec4 place = corner.x < 0.5 ? from : to;
        vec2 aside = vec2(-way.y, way.x) * corner.y + way * (corner.x * 2.0 - 1.0);
        place.xy += aside * width / size * place.w;
        place.z -= 1e-4 * place.w;
        vColor = chosen ? select : silhouette ? ink : edge;
        gl_Position = place;
      }`,
    fragmentShader: `
      varying vec3 vColor;
      void main() {
        gl_FragColor = vec4(vColor, 1.0);
        #include <colorspace_fragment>
      }`,
  });
}

/**
 * Things laid flat on the floor in one colour: the one flat shadow. What is below the floor throws none. Of a closed mesh the faces
 * towards the light draw all of it.
 */
export function shadowMaterial({ shadow, flatten }: Inks, closed: boolean): ShaderMaterial {
  return new ShaderMaterial({
    side: closed ? FrontSide : DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 2,
    polygonOffsetUnits: 2,
    uniforms: { color: { value: shadow }, flatten: { value: flatten } },
    vertexShader: `
      attribute mat4 placed;
      uniform mat4 flatten;
      varying float vAbove;
      void main() {
        vec4 place = placed * vec4(position, 1.0);
        vec4 laid = flatten * place;
        vAbove = place.y - laid.y;
        gl_Position = projectionMatrix * (viewMatrix * laid);
      }`,
    fragmentShader: `
      uniform vec3 color;
      varying float vAbove;
      void main() {
        if (vAbove < 0.0) discard;
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
