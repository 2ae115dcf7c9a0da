import { LogOut } from 'lucide-react';
import { useState } from 'react';
import { signOut } from '../api/session.ts';
import { Confirm } from './Confirm.tsx';
import { failed } from './failed.ts';
import { IconButton } from './IconButton.tsx';
import { forgetKept } from './kept.ts';
import { forgetUnsaved, unsaved } from './unsaved.ts';

/** Signs out, and leaves nothing of the person on the device; where something is not on the server, that is asked first. */
export function SignOut() {
  const [lost, setLost] = useState<readonly string[]>([]);
  const go = async () => {
    setLost([]);
    try {
      await signOut();
    } catch (error) {
      return failed(error);
    }
    forgetKept();
    forgetUnsaved();
    window.location.assign('/');
  };
  const begin = () => {
    const waiting = unsaved().map((what) => what.says);
    if (waiting.length > 0) setLost(waiting);
    else void go();
  };
  return (
    <>
      <IconButton label="Sign out" onClick={begin} icon={<LogOut size={17} />} />
      {lost.length > 0 && (
        <Confirm
          title="Sign out?"
          act="Sign out, and throw it away"
          onYes={() => void go()}
          onClose={() => setLost([])}
        >
          Not on the server yet: {lost.join(', ')}. Signing out throws it away.
        </Confirm>
      )}
    </>
  );
}
