/** JSON pointers (RFC 6901) from path steps, and back to the value they name. */
export function jsonPointer(...steps: readonly (string | number)[]): string {
  return steps.map((step) => '/' + String(step).replaceAll('~', '~0').replaceAll('/', '~1')).join('');
}

export function valueAtPointer(document: unknown, pointer: string): unknown {
  if (pointer === '') return document;
  let at: unknown = document;
  for (const step of pointer.slice(1).split('/')) {
    if (typeof at !== 'object' || at === null) return undefined;
    const name = step.replaceAll('~1', '/').replaceAll('~0', '~');
    at = Object.hasOwn(at, name) ? (at as Record<string, unknown>)[name] : undefined;
  }
  return at;
}
