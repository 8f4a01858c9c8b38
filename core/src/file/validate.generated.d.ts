/** Made from kaizen.schema.json by tools/schema.mjs, so that no page has to compile a schema at run time. */
export interface SchemaError {
  readonly instancePath: string;
  readonly keyword: string;
  readonly params: Readonly<Record<string, unknown>>;
  readonly message?: string;
  readonly schema?: unknown;
  readonly parentSchema?: unknown;
}
export interface SchemaValidator {
  (document: unknown): boolean;
  errors?: readonly SchemaError[] | null;
}
declare const validate: SchemaValidator;
export default validate;
