/**
 * A name or text from outside without what cannot be seen: control characters become blanks, and marks that turn the
 * direction of writing or have no width are taken out (Unicode categories Cc and Cf; joiners inside words stay).
 * "a\u202Eb" → "ab".
 */
export const visible = (text: string): string =>
  text.replace(/\p{Cc}+/gu, ' ').replace(/(?![\u200c\u200d])\p{Cf}/gu, '');
