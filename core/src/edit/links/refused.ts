import type { Result } from '../../project';

/** An edit that is refused, with the one sentence that says why. */
export function refused(message: string): Extract<Result<never>, { ok: false }> {
  return { ok: false, problems: [{ pointer: '', message }] };
}
