/** Whether all words of a search stand somewhere in a text, in small letters or large. */
export function hasWords(text: string, search: string): boolean {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const lower = text.toLowerCase();
  return words.every((word) => lower.includes(word));
}
