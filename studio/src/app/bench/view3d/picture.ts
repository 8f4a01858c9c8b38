/** The middle of a canvas in another size, as a JPEG in a data URI; null where it has no pixels yet. */
export function pictureOf(
  source: HTMLCanvasElement | undefined,
  size: { readonly width: number; readonly height: number },
): string | null {
  if (!source || source.width < 2) return null;
  const small = Object.assign(document.createElement('canvas'), size);
  const scale = Math.max(size.width / source.width, size.height / source.height);
  const [w, h] = [source.width * scale, source.height * scale];
  small.getContext('2d')?.drawImage(source, (size.width - w) / 2, (size.height - h) / 2, w, h);
  return small.toDataURL('image/jpeg', 0.86);
}
