/** A value that a condition compares with. */
export type Scalar = string | number | boolean | null;

/** The one condition language of targets, worklists, rules, forms, plans and visibility. */
export type Condition =
  | { all: Condition[] }
  | { any: Condition[] }
  | { not: Condition }
  | { field: string; op: 'is' | 'isNot'; value: Scalar }
  | { field: string; op: 'in' | 'notIn'; value: (string | number | null)[] }
  | { field: string; op: 'lt' | 'lte' | 'gt' | 'gte'; value: number | string }
  | { field: string; op: 'contains'; value: string }
  | { field: string; op: 'empty' | 'notEmpty' }
  /** Words or phrases in a text, whatever their form; read in memory by those who bring `setWordTest`. */
  | { field: string; op: 'hasAny' | 'hasAll'; value: string[] };

/** What a condition is read against, by the names of its fields. */
export type Fields = Record<string, unknown>;
