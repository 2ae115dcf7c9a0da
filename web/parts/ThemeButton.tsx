import { Moon, Sun } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from './IconButton.tsx';
import { applyTheme, readTheme } from './theme.ts';

/** Changes between day and night colours. */
export function ThemeButton() {
  const [theme, setTheme] = useState(readTheme);
  const other = theme === 'ebbet-day' ? 'ebbet-night' : 'ebbet-day';
  const change = () => {
    applyTheme(other);
    setTheme(other);
  };
  return (
    <IconButton
      label={theme === 'ebbet-day' ? 'Night colours' : 'Day colours'}
      onClick={change}
      icon={theme === 'ebbet-day' ? <Moon size={17} /> : <Sun size={17} />}
    />
  );
}
