import { useHotkeys } from 'react-hotkeys-hook';
import { isDialogOpen } from './Dialog.tsx';
import { actFor, KEYS, type KeyActs } from './keys.tsx';

const SETTING = 'ebbet-single-keys';

/** Whether single letters act; the person can switch them off. */
export const singleKeysOn = (): boolean => localStorage.getItem(SETTING) !== 'off';
export const setSingleKeys = (on: boolean): void => localStorage.setItem(SETTING, on ? 'on' : 'off');

/** A key as the map names it: "n", "ArrowDown", "Ctrl+Enter" (Ctrl or Cmd). */
function nameOf(event: KeyboardEvent): string {
  return event.ctrlKey || event.metaKey ? `Ctrl+${event.key}` : event.key;
}

function inField(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (target === null) return false;
  if (isTicked(target)) return event.key === ' ' || event.key.startsWith('Arrow');
  return /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}

/** Letters mean nothing to a box that is ticked or a choice among a few. */
const isTicked = (target: HTMLElement): boolean =>
  target instanceof HTMLInputElement && (target.type === 'checkbox' || target.type === 'radio');

/** Enter and Space belong to the button that has the focus, Enter to the link. */
function pressesFocused(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (target === null || event.ctrlKey || event.metaKey) return false;
  if (event.key === 'Enter') return /^(BUTTON|A|SUMMARY)$/.test(target.tagName);
  return event.key === ' ' && /^(BUTTON|SUMMARY)$/.test(target.tagName);
}

/**
 * Listens to keys on the page, not while a dialog is open. Single characters never act while somebody types, nor when they are switched off;
 * named keys (arrows, Escape) and combinations with Ctrl do, the former outside of fields only.
 */
export function useKeys(acts: KeyActs, enabled = true): void {
  // every key is asked of the map: names such as "," and "/" would be taken apart as a list of keys
  useHotkeys('*', (event) => press(acts, event), { enabled, enableOnFormTags: true, ignoreModifiers: true });
}

function press(acts: KeyActs, event: KeyboardEvent): void {
  if (event.defaultPrevented || event.altKey || isDialogOpen()) return;
  const name = nameOf(event);
  const act = actFor(acts, name);
  if (!act || pressesFocused(event)) return;
  const combined = name.startsWith('Ctrl+') || name === 'Escape';
  if (inField(event) && !combined) return;
  if (name.length === 1 && name !== KEYS.help.key && !singleKeysOn()) return;
  event.preventDefault();
  act(event);
}
