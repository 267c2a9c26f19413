import Papa from 'papaparse';

/** Rows as CSV. Cells that a spreadsheet would take for a formula are neutralised. */
export const toCsv = (rows: readonly (readonly (string | number)[])[]) => Papa.unparse(rows as (string | number)[][], { escapeFormulae: true });
