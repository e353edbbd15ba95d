/** The first of what a fix brings, and how much more. */
export function sayBrought([first, ...more]: readonly string[]): string {
  return more.length === 0 ? first! : `${first} And ${more.length === 1 ? '1 more' : `${more.length} more`}.`;
}
