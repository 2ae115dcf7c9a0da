import { Moon, Sun } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { IconButton } from './IconButton.tsx';
import { chooseTheme, onTheme, readTheme } from './theme.ts';

/** Changes between day and night colours. */
export function ThemeButton() {
  const isDay = useSyncExternalStore(onTheme, readTheme) === 'ebbet-day';
  return (
    <IconButton
      label={isDay ? 'Night colours' : 'Day colours'}
      onClick={() => chooseTheme(isDay ? 'ebbet-night' : 'ebbet-day')}
      icon={isDay ? <Moon size={17} /> : <Sun size={17} />}
    />
  );
}
