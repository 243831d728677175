declare module 'json-schema-test-suite' {
  export type SuiteTest = { description: string; data: unknown; valid: boolean };
  export type SuiteSchema = { description: string; schema: Record<string, unknown>; tests: SuiteTest[] };
  export type SuiteFile = { name: string; schemas: SuiteSchema[] };
  export function draft4(): SuiteFile[];
}
