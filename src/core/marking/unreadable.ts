/** Whether a whole code could be the one of which some characters, written `?`, cannot be read. */
export function matchesUnreadable(code: string, seen: string): boolean {
  return code.length === seen.length && Array.from(seen).every((c, i) => c === '?' || c === code[i]);
}
