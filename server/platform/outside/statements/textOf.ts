import { Unreadable } from '../unreadable.ts';

/** What older banks write where it is not UTF-8, in the order in which it is tried. */
const OLDER: { encoding: string; isPlausible: (text: string) => boolean }[] = [
  { encoding: 'shift_jis', isPlausible: isJapanese },
  { encoding: 'windows-1252', isPlausible: isLatin },
  { encoding: 'windows-1250', isPlausible: isLatin },
  { encoding: 'iso-8859-2', isPlausible: isLatin },
];

/**
 * Text of a file by its byte-order mark, as UTF-8, or else as Shift_JIS, windows-1252, windows-1250 or ISO 8859-2 where it makes words of
 * their languages. Letters that cannot be told are refused, never taken for others.
 */
export function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const utf8 = decoded('utf-8', bytes);
  if (utf8 !== null) return utf8;
  for (const { encoding, isPlausible } of OLDER) {
    const text = decoded(encoding, bytes);
    if (text !== null && isPlausible(text)) return text;
  }
  throw new Unreadable('In which encoding its letters are written cannot be told. Save it as UTF-8.');
}

function decoded(encoding: string, bytes: Uint8Array): string | null {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/** Japanese stands in runs; a letter with an accent that is taken for half of one stands alone between letters of ASCII. */
function isJapanese(text: string): boolean {
  const beyond = text.match(/[^\x00-\x7f]/gu)?.length ?? 0;
  const inRuns = [...text.matchAll(/[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}ー々〆・　、。「」（）￥]{2,}/gu)].reduce(
    (sum, [run]) => sum + run.length,
    0,
  );
  return !/[\ue000-\uf8ff]/.test(text) && inRuns >= beyond * 0.7;
}

/** Letters, and the signs that stand between words; no run of letters with accents, as another alphabet would give. */
function isLatin(text: string): boolean {
  const odd =
    /[\x00-\x08\x0e-\x1f\x80-\x9f]|\p{L}[¢¤¥¦§¨©¬®¯°±²³´µ¶·¸¹¼½¾¿ˇ˘˛˝“”„•‰†‡ˆ˜‹›]+\p{L}|(?:(?![a-zA-Z])\p{L}){4}/u;
  return !odd.test(text);
}
