/** A number with each choice of its 6s and 8s read as zeros, as it is first: zeros struck through or dotted look like them. */
export function zeroed(number: string): string[] {
  return [...number].reduce<string[]>(
    (heads, c) => heads.flatMap((head) => (c === '8' || c === '6' ? [head + c, `${head}0`] : [head + c])),
    [''],
  );
}
