/**
 * Makes once for each object what follows from it: a preview asks again at every key, and neither a book nor the
 * figures of a line ever change. What else `make` is given must follow from the object too. Example: 300 lines of which
 * one was computed anew → made for that one.
 */
export function oncePer<K extends object, Rest extends readonly unknown[], T>(
  make: (of: K, ...rest: Rest) => T,
): (of: K, ...rest: Rest) => T {
  const made = new WeakMap<K, { is: T }>();
  return (of, ...rest) => {
    const known = made.get(of);
    if (known) return known.is;
    const is = make(of, ...rest);
    made.set(of, { is });
    return is;
  };
}
