/**
 * One cell of a CSV file. A leading sign would be taken for a formula by a spreadsheet, so it gets a quote before it;
 * and whatever any program takes for a separator stands in double quotes, or what follows it would begin a cell.
 */

const FORMULA = /^'*(\s*[=+\-@]|[\t\r\n])/;

export function csvCell(value: string): string {
  const safe = FORMULA.test(value) ? `'${value}` : value;
  return /[",;|\t\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}

/** The text of a cell as it was before it was made safe. */
export function cellText(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
}
