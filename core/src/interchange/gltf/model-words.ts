/** `1 node`, `2 nodes`. */
export function plural(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}

/** A name as an id: letters, digits, `.`, `_`, `-`. */
export function slug(text: string): string {
  return text.replace(/[^A-Za-z0-9._-]+/g, '-').replace(/^[^A-Za-z0-9]+/, '') || 'model';
}
