const MOST_LETTERS = 299;
/** Control characters, line and paragraph ends, and marks that turn the direction of writing. */
const UNSEEN = /[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]+/gu;

/**
 * A message as one plain line of at most 299 letters: control characters and line ends, which a file may smuggle in, become
 * spaces, and what is longer ends in an ellipsis.
 */
export function plainSentence(text: string, most = MOST_LETTERS): string {
  const line = text.replace(UNSEEN, ' ').trim();
  const letters = [...line];
  return letters.length <= most ? line : `${letters.slice(0, most - 1).join('')}…`;
}
