/** Whether the processor draws in place of a graphics card, by the name that the renderer gives itself. */
export function drawsWithoutCard(gl: WebGL2RenderingContext): boolean {
  const names = gl.getExtension('WEBGL_debug_renderer_info');
  const name = String(gl.getParameter(names?.UNMASKED_RENDERER_WEBGL ?? gl.RENDERER));
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}
