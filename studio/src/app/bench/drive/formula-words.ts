/** The word that ends at the caret of a formula, and where it begins; empty where none does. */
export function wordAt(text: string, caret: number): { readonly word: string; readonly from: number } {
  const word = /[A-Za-z_$][\w$]*$/.exec(text.slice(0, caret))?.[0] ?? '';
  return { word, from: caret - word.length };
}

/** A formula with the word at the caret completed, and where the caret stands then: inside the brackets of a function. */
export function completed(
  text: string,
  caret: number,
  { name, isFunction }: { readonly name: string; readonly isFunction: boolean },
): { readonly text: string; readonly caret: number } {
  const { from } = wordAt(text, caret);
  const after = text.slice(caret);
  const put = isFunction && !after.startsWith('(') ? `${name}()` : name;
  return {
    text: text.slice(0, from) + put + after,
    caret: from + put.length - (put.endsWith(')') ? 1 : 0),
  };
}
