/** Why a model was refused: a JSON pointer into it and one sentence. */
export interface ModelProblem {
  readonly problem: true;
  readonly pointer: string;
  readonly message: string;
}

class ModelError extends Error implements ModelProblem {
  readonly problem = true;
  constructor(
    readonly pointer: string,
    message: string,
  ) {
    super(message);
  }
}

export function gltfProblem(pointer: string, message: string): Error {
  return new ModelError(pointer, message);
}

export function isModelError(error: unknown): error is ModelProblem {
  return error instanceof ModelError;
}
