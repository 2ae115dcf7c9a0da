import { create } from 'qrcode';
import { useState } from 'react';
import { mutate as mutateAll } from 'swr';
import { addFactor, offerFactor, removeFactor, useFactor } from '../../api/account.ts';
import type { Person } from '../../api/session.ts';
import { Field, Problem } from '../../parts/Field.tsx';
import { failed } from '../../parts/failed.ts';
import { toast } from '../../parts/toast.tsx';
import { useSubmit } from '../../parts/useSubmit.ts';

type Offer = Awaited<ReturnType<typeof offerFactor>>;

/** The second factor: added with an authenticator, with codes to keep for a lost phone; removed by who knows the password. */
export function SecondFactor({ person }: { person: Person }) {
  const { data, mutate } = useFactor();
  const [offer, setOffer] = useState<Offer | null>(null);
  const [codes, setCodes] = useState<string[] | null>(null);
  const [removing, setRemoving] = useState(false);
  if (!data) return null;
  const changed = async () => {
    await mutate();
    await mutateAll('/session');
  };
  const begin = async () => setOffer((await offerFactor().catch(failed)) ?? null);
  const added = (kept: string[]) => {
    setOffer(null);
    setCodes(kept);
    void changed();
  };
  const removed = () => {
    setRemoving(false);
    setCodes(null);
    void changed();
  };
  return (
    <section className="mt-6" aria-labelledby="factor-title">
      <h2 id="factor-title" className="mb-1 font-semibold">
        Second factor
      </h2>
      <p className="quiet mb-2 text-sm">{stateOf(person, data)}</p>
      {codes && <LostPhone codes={codes} />}
      {offer ? (
        <AddForm offer={offer} onAdded={added} onCancel={() => setOffer(null)} />
      ) : removing ? (
        <RemoveForm onRemoved={removed} onCancel={() => setRemoving(false)} />
      ) : (
        <button
          type="button"
          className="btn btn-sm border-base-300 bg-base-100"
          onClick={() => (data.on ? setRemoving(true) : void begin())}
        >
          {data.on ? 'Remove it' : 'Add an authenticator'}
        </button>
      )}
    </section>
  );
}

function stateOf({ factor }: Person, { on, codesLeft }: { on: boolean; codesLeft: number }): string {
  if (on) return `Signing in asks for a code of your authenticator. Codes left for a lost phone: ${codesLeft}.`;
  return factor === 'needed'
    ? 'Your organisation asks for one before you see others’ claims: a code that an authenticator on your phone shows.'
    : 'Beside the password, a code that an authenticator on your phone shows. A stolen password then opens nothing.';
}

interface AddFormProps {
  offer: Offer;
  onAdded: (codes: string[]) => void;
  onCancel: () => void;
}

function AddForm({ offer, onAdded, onCancel }: AddFormProps) {
  const [code, setCode] = useState('');
  const form = useSubmit(async () => onAdded((await addFactor(code)).codes));
  return (
    <form onSubmit={form.submit} className="flex flex-wrap gap-6 rounded-box border border-base-300 bg-base-100 p-4">
      <Picture text={offer.address} />
      <div className="min-w-64 flex-1">
        <p className="mb-1">Let your authenticator see this picture, or type this into it:</p>
        <p className="mb-3 font-mono break-all select-all">{offer.secret.match(/.{1,4}/g)!.join(' ')}</p>
        <Field
          id="factor-code"
          label="The code it shows now"
          complete="one-time-code"
          digits
          first
          value={code}
          onChange={setCode}
        />
        <button className="btn btn-primary btn-sm" disabled={form.busy}>
          Ask for it from now on
        </button>{' '}
        <button type="button" className="btn btn-sm" onClick={onCancel}>
          Cancel
        </button>
        <Problem says={form.problem} />
      </div>
    </form>
  );
}

const QUIET = 4;

/** A text as a QR code (ISO/IEC 18004), dark on white in both themes, so that every camera reads it. */
function Picture({ text }: { text: string }) {
  const { data, size } = create(text).modules;
  const dark = Array.from(data, (bit, i) =>
    bit ? `M${(i % size) + QUIET} ${Math.floor(i / size) + QUIET}h1v1h-1z` : '',
  );
  const side = size + 2 * QUIET;
  return (
    <svg
      viewBox={`0 0 ${side} ${side}`}
      className="size-44"
      role="img"
      aria-label="For the camera of your authenticator"
    >
      <path d={`M0 0h${side}v${side}h-${side}z`} fill="#fff" />
      <path d={dark.join('')} fill="#000" shapeRendering="crispEdges" />
    </svg>
  );
}

function LostPhone({ codes }: { codes: string[] }) {
  return (
    <div role="status" className="mb-3 rounded-box border border-warning bg-base-100 p-4">
      <p className="font-medium">
        Keep these codes where your phone is not. Each signs you in once; they are not shown again.
      </p>
      <ul className="mt-2 grid max-w-md grid-cols-2 font-mono select-all">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
    </div>
  );
}

function RemoveForm({ onRemoved, onCancel }: { onRemoved: () => void; onCancel: () => void }) {
  const [current, setCurrent] = useState('');
  const form = useSubmit(async () => {
    await removeFactor(current);
    toast({ text: 'Signing in asks for the password alone' });
    onRemoved();
  });
  return (
    <form onSubmit={form.submit} className="max-w-80">
      <Field
        id="factor-password"
        label="Your password"
        type="password"
        complete="current-password"
        first
        value={current}
        onChange={setCurrent}
      />
      <button className="btn btn-sm btn-error" disabled={form.busy}>
        Remove it
      </button>{' '}
      <button type="button" className="btn btn-sm" onClick={onCancel}>
        Cancel
      </button>
      <Problem says={form.problem} />
    </form>
  );
}
