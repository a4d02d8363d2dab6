import { dsvFormat } from 'd3-dsv';

/** Numbers in columns. */
export interface Table {
  names: string[];
  /** One array a column, all as long. */
  columns: Float32Array[];
}

const number = (cell: string): number => (cell.trim() === '' ? NaN : Number(cell.trim().replace(',', '.')));

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Rows of a JSON text: numbers, lists of numbers, or objects with numbers by name; or one object with a list for each column. */
function rowsOf(value: unknown): { names: string[]; rows: unknown[][] } {
  if (isObject(value)) {
    const names = Object.keys(value);
    const columns = names.map((name) =>
      Array.isArray(value[name]) ? (value[name] as unknown[]) : [value[name]],
    );
    const count = Math.max(0, ...columns.map(({ length }) => length));
    return { names, rows: Array.from({ length: count }, (_, r) => columns.map((column) => column[r])) };
  }
  const list = value as unknown[];
  if (list.some(isObject)) {
    const names = [...new Set(list.filter(isObject).flatMap((row) => Object.keys(row)))];
    return { names, rows: list.map((row) => names.map((name) => (isObject(row) ? row[name] : undefined))) };
  }
  const rows = list.map((row) => (Array.isArray(row) ? (row as unknown[]) : [row]));
  const width = rows[0]?.length ?? 0;
  return { names: Array.from({ length: width }, (_, k) => `c${k + 1}`), rows };
}

function readJson(text: string): Table {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new RangeError(`The JSON cannot be read: ${(error as Error).message}.`);
  }
  const { names, rows } = rowsOf(value);
  const columns = names.map(() => new Float32Array(rows.length));
  rows.forEach((row, r) => {
    if (row.length !== names.length)
      throw new RangeError(
        `Row ${r + 1} has ${row.length} cells, the first has ${names.length}. Make them alike.`,
      );
    row.forEach((cell, k) => {
      if (typeof cell !== 'number' || !Number.isFinite(cell))
        throw new RangeError(
          `Row ${r + 1}, ${names[k]} is ${cell === undefined ? 'missing' : JSON.stringify(cell)}, not a number.`,
        );
      columns[k][r] = cell;
    });
  });
  return { names, columns };
}

const delimiters = [',', ';', '\t', ' '];

/** Rows by the delimiter that gives the widest first rows all alike; rows without anything in them do not count. */
function rowsOfText(text: string): string[][] {
  const readings = delimiters.map((delimiter) =>
    dsvFormat(delimiter)
      .parseRows(text)
      .filter((row) => row.some((cell) => cell.trim())),
  );
  const width = (rows: string[][]): number => rows[0]?.length ?? 0;
  const isEven = (rows: string[][]): boolean => rows.every((row) => row.length === width(rows));
  const widest = (of: string[][][]): string[][] =>
    of.reduce((best, rows) => (width(rows) > width(best) ? rows : best));
  const even = readings.filter((rows) => isEven(rows) && width(rows) > 1);
  return widest(even.length ? even : readings);
}

/**
 * Reads comma, semicolon or tab separated values (RFC 4180). A first row that holds no number is taken as names. Throws
 * RangeError that names the row and column of the first cell that does not fit; empty text gives no columns. A text that begins as JSON is read as
 * that: lists of numbers, of lists or of objects, or an object of lists.
 */
export function readTable(text: string): Table {
  if (/^\s*[[{]/.test(text)) return readJson(text);
  const data = rowsOfText(text.trim());
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
