/** Sets a field of an object by its name, also one that is called `__proto__`. */
export function setOwn(object: Record<string, unknown>, name: string, value: unknown): void {
  if (name !== '__proto__') object[name] = value;
  else Object.defineProperty(object, name, { value, enumerable: true, writable: true, configurable: true });
}
