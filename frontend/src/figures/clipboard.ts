/** A cell as it is put on the clipboard: a spreadsheet would run what begins like a formula; a signed number is none. */
export function safeCell(text: string): string {
  const plain = text.replace(/[\t\r\n]+/g, ' ');
  return /^[=+\-@]/.test(plain) && !/^[+-]?\d[\d.,\s'\u00B0\u2032\u2033":]*(e[+-]?\d+)?$/i.test(plain) ? `'${plain}` : plain;
}
