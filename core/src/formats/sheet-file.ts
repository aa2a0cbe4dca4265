import Papa from 'papaparse'

/* A table as spreadsheets write it: comma, semicolon or tab, with or without byte order mark, quoted cells, blank lines, own headings. */

/** Columns that a table may have, each with the headings that mean it. */
export type SheetColumns<C extends string> = Readonly<Record<C, readonly string[]>>

/** A row with what stands in its columns. */
export interface SheetRow<C extends string> {
  /** 1-based, as the spreadsheet counts. */
  readonly row: number
  readonly cells: readonly string[]
  /** What stands in a column; empty where the table has it not. */
  readonly cell: (column: C) => string
}

/** A table that was read. */
export interface SheetFile<C extends string> {
  readonly rows: readonly SheetRow<C>[]
  /** Columns that were understood, as the file names them. */
  readonly used: readonly string[]
  /** Columns that were passed over. */
  readonly unknown: readonly string[]
  /** Every heading of the file with what it was taken for; null for one passed over. */
  readonly headings: readonly { readonly heading: string; readonly column: C | null }[]
  /** Why the whole file cannot be read; null when it can. */
  readonly trouble: string | null
}

/** Why a cell says nothing that could be taken. */
export interface Refused {
  readonly refused: string
}
/** Whether a cell was refused. */
export const isRefused = (read: unknown): read is Refused =>
  typeof read === 'object' && read !== null && 'refused' in read

/** Largest table that is read, in characters. */
export const LIST_LIMIT = 2_000_000

/** A table that cannot be read, and why. */
function noSheet<C extends string>(trouble: string): SheetFile<C> {
  return { rows: [], used: [], unknown: [], headings: [], trouble }
}

/**
 * Reads a table. `meanings` says what headings of the firm's own mean, by `headingKey`; one without a column of `needed` is none, and
 * `what` says what is then missing. Total.
 */
export function readSheet<C extends string>(
  text: string,
  columns: SheetColumns<C>,
  {
    meanings = {},
    needed,
    what,
  }: {
    readonly meanings?: Readonly<Record<string, string>> | undefined
    readonly needed: NoInfer<C>
    readonly what: string
  },
): SheetFile<C> {
  if (text.length > LIST_LIMIT)
    return noSheet(`The file is larger than the ${LIST_LIMIT / 1e6} million characters read here. Split it.`)
  if (text.includes('\u0000'))
    return noSheet('This is no text file. Save the sheet as CSV (UTF-8) and choose that file.')
  const clean = text.replace(/^\uFEFF/, '').replace(/^sep=.\r?\n/i, '')
  const parsed = Papa.parse<string[]>(clean, { skipEmptyLines: false, delimiter: delimiterOf(clean) })
  const lines = parsed.data.map((cells, index) => ({
    cells: cells.map(plainCell),
    row: index + 1,
  }))
  const head = lines.find((line) => line.cells.some((cell) => cell !== ''))
  if (!head) return noSheet('The file is empty.')
  const names = Object.keys(columns) as C[]
  const at = columnsOf(head.cells, columns, meanings)
  const headings = head.cells.flatMap((heading, index) =>
    heading === '' ? [] : [{ heading, column: names.find((column) => at[column] === index) ?? null }],
  )
  if (at[needed] === undefined)
    return {
      ...noSheet<C>(
        `No column says ${what}. The first row must name one of: ${columns[needed].join(', ')}; found: ${head.cells.filter(Boolean).join(', ')}. Say below what the columns mean, or change the file.`,
      ),
      headings,
    }
  const known = new Set(Object.values(at))
  const body = lines.filter((line) => line.row > head.row && line.cells.some((cell) => cell !== ''))
  return {
    rows: body.map(({ row, cells }) => ({ row, cells, cell: (column) => cells[at[column] ?? -1] ?? '' })),
    used: head.cells.filter((_cell, index) => known.has(index)),
    unknown: head.cells.filter((cell, index) => cell !== '' && !known.has(index)),
    headings,
    trouble: body.length === 0 ? 'The file has a heading but no rows.' : null,
  }
}

/**
 * A cell without what makes spreadsheets keep it as text: `="01234567"`, and the apostrophe before a number, an ID or what would be
 * calculated, which this product writes itself. An apostrophe that begins a word stays.
 */
function plainCell(cell: string): string {
  const text = cell.trim()
  const formula = /^=\s*"((?:[^"]|"")*)"$/.exec(text)
  if (formula) return (formula[1] ?? '').replaceAll('""', '"').trim()
  const marked = text.startsWith("'") && (calculated.test(text.slice(1)) || /^'\S*\d/.test(text))
  return marked ? text.slice(1).trim() : text
}

/** A heading as it is compared and remembered. */
export function headingKey(heading: string): string {
  return heading.toLowerCase().replace(/[_-]/g, ' ').replace(/\s+/g, ' ').trim()
}

/** What the firm said of a heading counts before its usual meaning; of two columns alike the first is read. */
function columnsOf<C extends string>(
  head: readonly string[],
  columns: SheetColumns<C>,
  meanings: Readonly<Record<string, string>>,
): Partial<Record<C, number>> {
  const names = Object.keys(columns) as C[]
  const meant = head.map((cell) => {
    const key = headingKey(cell)
    const said = Object.hasOwn(meanings, key) ? meanings[key] : undefined
    // A meaning that is of another kind of table says nothing here.
    if (said === 'nothing' || names.includes(said as C)) return said
    return names.find((column) => columns[column].includes(key))
  })
  const at: Partial<Record<C, number>> = {}
  for (const column of names) {
    const said = head.findIndex((cell) => meanings[headingKey(cell)] === column)
    const index = said >= 0 ? said : meant.indexOf(column)
    if (index >= 0) at[column] = index
  }
  return at
}

/** The delimiter that stands most in the first line that has any, outside quotes. */
function delimiterOf(text: string): string {
  const line = text.split(/\r?\n/).find((item) => item.trim() !== '') ?? ''
  const bare = line.replace(/"[^"]*"/g, '')
  const count = (sign: string): number => bare.split(sign).length
  return [';', '\t', ','].sort((a, b) => count(b) - count(a))[0] ?? ','
}

/**
 * What a spreadsheet may take for a formula: a sign that begins one, plain or full-width, also behind spaces, line breaks and
 * marks that nobody sees.
 */
const calculated = /^[\s\p{Cc}\p{Cf}]*[=+\-@\u2212\uFF0B\uFF0D\uFF1D\uFF20]/u

/** A table as CSV (UTF-8 with byte order mark, comma); cells that a spreadsheet would calculate are neutralised. */
export function writeSheet(fields: readonly string[], data: readonly (readonly string[])[]): string {
  const table = { fields: [...fields], data: data.map((line) => [...line]) }
  return `\uFEFF${Papa.unparse(table, { escapeFormulae: calculated, newline: '\r\n' })}\r\n`
}
