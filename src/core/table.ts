import Papa from 'papaparse';

/** Numbers in columns. */
export interface Table {
  names: string[];
  /** One array a column, all as long. */
  columns: Float32Array[];
}

const number = (cell: string): number => (cell.trim() === '' ? NaN : Number(cell.trim().replace(',', '.')));

/**
 * Reads comma, semicolon or tab separated values (RFC 4180). A first row that holds no number is taken as names. Throws
 * RangeError that names the row and column of the first cell that does not fit; empty text gives no columns.
 */
export function readTable(text: string): Table {
  const { data, errors } = Papa.parse<string[]>(text.trim(), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', ' '],
  });
  const broken = errors.find(({ code }) => code !== 'UndetectableDelimiter');
  if (broken) throw new RangeError(`Row ${(broken.row ?? 0) + 1} cannot be read: ${broken.message}.`);
  if (!data.length) return { names: [], columns: [] };
  const isHead = data[0].every((cell) => Number.isNaN(number(cell)));
  const rows = isHead ? data.slice(1) : data;
  const width = data[0].length;
  const names = data[0].map((cell, k) => (isHead && cell.trim()) || `c${k + 1}`);
  const columns = names.map(() => new Float32Array(rows.length));
  rows.forEach((row, r) => {
    const line = r + (isHead ? 2 : 1);
    if (row.length !== width)
      throw new RangeError(`Row ${line} has ${row.length} cells, the first has ${width}. Make them alike.`);
    row.forEach((cell, k) => {
      const value = number(cell);
      if (!Number.isFinite(value))
        throw new RangeError(
          `Row ${line}, column ${k + 1} is ${cell.trim() ? `“${cell.trim().slice(0, 20)}”` : 'empty'}, not a number.`,
        );
      columns[k][r] = value;
    });
  });
  return { names, columns };
}
