import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';

/** Scripts that write words without spaces between them; what is recognised of them comes in pieces. */
const WITHOUT_SPACES = /^[\p{scx=Han}\p{scx=Hiragana}\p{scx=Katakana}]+$/u;
/** How far apart two pieces of one word stand at most, as a share of their height. */
const MOST_APART = 0.6;

export const isScriptWithoutSpaces = (text: string): boolean => WITHOUT_SPACES.test(text);

/** The strokes of a yen sign, which are read once more as a letter. */
const SIGN_AGAIN = 'ギ';

/**
 * The words of a line with the pieces of a script without spaces put together, and the yen sign as such: it shares a place
 * with the backslash in Japanese character sets (JIS X 0201).  @param size of the picture, in pixels
 */
export function joined(words: readonly Word[], size: Record<'width' | 'height', number>): Word[] {
  const line: Word[] = [];
  for (const word of words) {
    const next = { ...word, text: word.text.replace(/\\/gu, '¥') };
    const last = line.at(-1);
    if (last?.text === '¥' && next.text === SIGN_AGAIN) continue;
    if (last && isOneWord(last, next, size)) line[line.length - 1] = together(last, next);
    else line.push(next);
  }
  return line;
}

function isOneWord(a: Word, b: Word, { width, height }: Record<'width' | 'height', number>): boolean {
  const apart = (b.box.x - a.box.x - a.box.width) * width;
  return (
    isScriptWithoutSpaces(a.text)
    && isScriptWithoutSpaces(b.text)
    && apart <= Math.max(a.box.height, b.box.height) * height * MOST_APART
  );
}

function together(a: Word, b: Word): Word {
  const right = (box: Box) => box.x + box.width;
  const bottom = (box: Box) => box.y + box.height;
  const [x, y] = [Math.min(a.box.x, b.box.x), Math.min(a.box.y, b.box.y)];
  const width = Math.max(right(a.box), right(b.box)) - x;
  const height = Math.max(bottom(a.box), bottom(b.box)) - y;
  const text = a.text + b.text;
  return { ...a, text, confidence: Math.min(a.confidence, b.confidence), box: { x, y, width, height } };
}
