/** A remark about a text, with its place. Lines and columns count from 1. */
export interface Diagnostic {
  readonly severity: 'error' | 'warning';
  readonly line: number;
  readonly column: number;
  readonly length: number;
  readonly message: string;
  /** What the reader can do about it. */
  readonly remedy: string;
}

export function describe(d: Diagnostic): string {
  return `line ${d.line}, column ${d.column}: ${d.message}. ${d.remedy}`;
}
