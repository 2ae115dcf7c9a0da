/** Pages in parts, each beginning on a page that begins one. (5, {1, 3}) → [[1, 2], [3, 4, 5]]. */
export function partsOf(pages: number, begins: ReadonlySet<number>): number[][] {
  const parts: number[][] = [];
  for (let page = 1; page <= pages; page += 1) {
    if (page === 1 || begins.has(page)) parts.push([]);
    parts.at(-1)!.push(page);
  }
  return parts;
}
