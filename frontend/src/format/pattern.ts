/** A pattern of names with * and ?, as the server reads it. */
export function namePattern(text: string): RegExp {
  const escaped = text.replace(/[.+^${}()|[\]\\]/g, '\\$&');
  return new RegExp(`^${escaped.replaceAll('*', '.*').replaceAll('?', '.')}$`);
}
