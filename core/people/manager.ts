/**
 * Whether a manager would close a ring: whoever follows the line up from them would come to the person again.
 * @param managerOf who manages someone; null where nobody does
 */
export function closesRing(
  personId: string,
  managerId: string | null,
  managerOf: (id: string) => string | null,
): boolean {
  const seen = new Set<string>();
  for (let at = managerId; at !== null && !seen.has(at); at = managerOf(at)) {
    if (at === personId) return true;
    seen.add(at);
  }
  return false;
}
