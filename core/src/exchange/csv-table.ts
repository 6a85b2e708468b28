/** Signs that make a table program read a cell as something to compute. */
const COMPUTED = /^[=+@\t\r]|^-(?![\d.])/;

/** A cell as it may stand in a line; one that a table program would compute is made plain text. */
function quoted(cell: string): string {
  const plain = COMPUTED.test(cell) ? `'${cell}` : cell;
  return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

/** A table as text (RFC 4180): a line of heads, then a line for each row; all rows have the same heads. */
export function writeTable(rows: readonly Readonly<Record<string, string | number>>[]): string {
  return [Object.keys(rows[0] ?? {}), ...rows.map((row) => Object.values(row))]
    .map((line) => line.map((cell) => quoted(String(cell))).join(','))
    .map((line) => `${line}\r\n`)
    .join('');
}
