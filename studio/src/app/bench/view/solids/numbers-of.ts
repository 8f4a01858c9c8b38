import type { BufferAttribute, InterleavedBufferAttribute } from 'three';

type Numbers = BufferAttribute | InterleavedBufferAttribute;

/** A copy of an attribute's numbers one after the other, whatever they are packed in. */
export function numbersOf(attribute: Numbers, size: number): Float32Array {
  const { array, itemSize, normalized } = attribute;
  const isPlain = !('isInterleavedBufferAttribute' in attribute) && !normalized && itemSize === size;
  if (isPlain) return new Float32Array(array);
  return Float32Array.from({ length: attribute.count * size }, (_, i) =>
    attribute.getComponent(Math.floor(i / size), i % size),
  );
}
