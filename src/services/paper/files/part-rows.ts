/** Rows of a table as a list that can be read like a pasted one: a number and a quantity each. */

/** Heads of columns as people write them, in the languages we speak. */
const numberHead =
  /^(part ?number|item ?number|item ?no\.?|number|sku|teilenummer|artikelnummer|artikel-?nr\.?|nummer)$/i;
const discountHead = /^(discount ?%?|rabatt ?%?)$/i;
const quantityHead = /^(quantity|qty\.?|count|menge|anzahl|stück|stk\.?)$/i;

/** A discount as a pasted row says it; none where there is none. */
const discountOf = (cell: string | undefined): string =>
  cell === undefined || /^\s*(0([.,]0*)?)?\s*%?\s*$/.test(cell)
    ? ''
    : `\t${cell.trim().replace(/\s*%$/, '')}%`;

/** The part numbers and quantities in rows of a table, as a list that can be pasted; their columns are found by their heads. */
export function listOf(rows: readonly (readonly string[])[]): string {
  // A sentence or two may stand above the heads.
  const top = Math.max(
    0,
    rows.slice(0, 4).findIndex((row) => row.some((cell) => numberHead.test(cell.trim()))),
  );
  const head = rows[top] ?? [];
  const numberAt = head.findIndex((cell) => numberHead.test(cell.trim()));
  const quantityAt = head.findIndex((cell) => quantityHead.test(cell.trim()));
  const discountAt = head.findIndex((cell) => discountHead.test(cell.trim()));
  // Without heads the rows are read as they stand, as pasted ones are.
  if (numberAt < 0) return rows.map((row) => row.join('\t')).join('\n');
  return rows
    .slice(top + 1)
    .flatMap((row) =>
      row[numberAt]?.trim()
        ? [
            `${row[numberAt] ?? ''}\t${quantityAt < 0 ? '1' : (row[quantityAt] ?? '')}${discountOf(row[discountAt])}`,
          ]
        : [],
    )
    .join('\n');
}
