import { linkedSignal, type WritableSignal } from '@angular/core';
import type { Studio } from '../../state/studio';

/** Which of a list of the chosen part's shows what it is made of, by its name; none once another part is chosen. */
export function openLine(studio: Studio): WritableSignal<string | null> {
  return linkedSignal<string | undefined, string | null>({
    source: () => studio.bench().parts.at(-1),
    computation: (part, last) => (last && last.source === part ? last.value : null),
  });
}
