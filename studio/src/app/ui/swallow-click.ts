/** The click that ends a drag chooses nothing: the next one, if it comes at once, is let pass unheard. */
export function swallowClick(): void {
  const swallow = (event: Event) => {
    event.stopPropagation();
    event.preventDefault();
  };
  addEventListener('click', swallow, { capture: true, once: true });
  setTimeout(() => removeEventListener('click', swallow, { capture: true }));
}
