declare module 'gltf-validator' {
  export function validateBytes(
    bytes: Uint8Array,
    options?: { maxIssues?: number },
  ): Promise<{
    issues: { messages: { code: string; message: string; severity: number; pointer?: string }[] };
  }>;
}
