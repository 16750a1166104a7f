/** True while someone types text, so that single keys are letters and not commands. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return target !== null && target.closest('input, textarea, select, [contenteditable]') !== null;
}

export const KEYS: [string, string][] = [
  ['1 … 8', 'go to a stage'],
  ['/', 'search anything by name'],
  ['\\', 'from one page to the other'],
  ['f', 'full width, and back'],
  ['z', 'fit the sketch'],
  ['↑ ↓', 'move in a table; with Shift, extend the selection'],
  ['x', 'set aside, or bring back'],
  ['Space', 'open or close the slip'],
  ['l', 'ledger'],
  ['Ctrl A', 'select every row shown'],
  ['Ctrl C', 'copy the selected rows as text'],
  ['Ctrl Z', 'undo; with Shift, do again'],
  ['Esc', 'close what lies on top'],
];
