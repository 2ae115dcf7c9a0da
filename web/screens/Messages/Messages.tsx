import { useEffect } from 'react';
import { Link } from 'react-router';
import { chooseMail, readUpTo, useMessages, type MailChoice, type ShownMessage } from '../../api/messages.ts';
import { failed } from '../../parts/failed.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { useRovingRows } from '../../parts/table/useRovingRows.ts';
import { sayMoment } from '../../words/sayEvent.ts';

/** What a person heard of, the newest first, and how they hear of it by mail. What is shown counts as read, and stays marked as new until the list is asked for again. */
export default function Messages() {
  const { data, error, mutate, size, setSize } = useMessages();
  const newest = data?.[0]?.messages[0]?.id;
  useEffect(() => {
    if (newest) void readUpTo(newest).catch(() => undefined);
  }, [newest]);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const { mail, address } = data[0]!;
  const messages = data.flatMap((page) => page.messages);
  const choose = async (next: MailChoice) => {
    const answer = await chooseMail(next).catch(failed);
    if (!answer) return;
    await mutate();
    toast({ text: SAID[next] });
  };
  return (
    <div className="mx-auto w-full max-w-4xl pb-10">
      <div className="flex flex-wrap items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Messages</h1>
        <MailChoices mail={mail} address={address} onChoose={(next) => void choose(next)} />
      </div>
      {messages.length === 0 ? (
        <Empty title="No messages">
          You hear of it here when something of yours is decided about, or when something waits for you.
        </Empty>
      ) : (
        <List messages={messages} />
      )}
      {data.at(-1)?.next && (
        <button type="button" className="btn btn-sm m-4" onClick={() => void setSize(size + 1)}>
          Show older ones
        </button>
      )}
    </div>
  );
}

const SAID: Record<MailChoice, string> = {
  'at once': 'You get a mail for each message',
  daily: 'You get one mail a day, in the morning',
  none: 'You get no mail; messages are here',
};
const CHOICES: Record<MailChoice, string> = {
  'at once': 'at once',
  daily: 'once a day',
  none: 'not at all',
};

interface MailChoicesProps {
  mail: MailChoice;
  address: string;
  onChoose: (mail: MailChoice) => void;
}
const MailChoices = ({ mail, address, onChoose }: MailChoicesProps) => (
  <label className="quiet ml-auto flex flex-wrap items-center gap-2 text-sm">
    By mail to {address}
    <select
      className="select select-sm w-36"
      aria-label="By mail"
      value={mail}
      onChange={(e) => onChoose(e.target.value as MailChoice)}
    >
      {Object.entries(CHOICES).map(([choice, says]) => (
        <option key={choice} value={choice}>
          {says}
        </option>
      ))}
    </select>
  </label>
);

function List({ messages }: { messages: readonly ShownMessage[] }) {
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(messages.length);
  return (
    <ul ref={list} className="rows border-y border-base-300 bg-base-100">
      {messages.map((m, index) => (
        <li key={m.id}>
          <Link
            data-row
            tabIndex={index === current ? 0 : -1}
            onFocus={() => setCurrent(index)}
            to={`/${m.record}s/${m.number}`}
            className="grid grid-cols-[0.75rem_minmax(0,1fr)] gap-x-2 border-b border-base-300 px-4 py-2 hover:bg-base-200 sm:grid-cols-[0.75rem_minmax(0,1fr)_10rem]"
          >
            <span className={m.read ? 'invisible' : 'text-primary'} role="img" aria-label={m.read ? undefined : 'new'}>
              ●
            </span>
            <span className="min-w-0">
              <span className={m.read ? 'block' : 'block font-semibold'}>{m.subject}</span>
              <span className="block text-sm">{m.says}</span>
              {m.next && <span className="quiet block text-sm">{m.next}</span>}
            </span>
            <span className="quiet col-start-2 text-sm sm:col-start-3 sm:text-right">{sayMoment(m.at)}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
