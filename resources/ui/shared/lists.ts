/** Items written in one field, apart by a semicolon or a new line. Never by a comma: that is part of a number ("4,90"). */
export const itemsOf = (text: string): string[] =>
  text
    .split(/[;\n]/)
    .map((one) => one.trim())
    .filter(Boolean)
