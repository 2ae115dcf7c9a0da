import { NavLink, Navigate, Route, Routes } from 'react-router';
import type { Person } from '../../api/session.ts';
import { Cards } from './Cards.tsx';
import { Charges } from './Charges.tsx';
import { Month } from './Month.tsx';
import { Pairs } from './Pairs.tsx';
import { Receipts } from './Receipts.tsx';
import { Statements } from './Statements.tsx';

const KEEPERS = ['reviewer', 'controller', 'administrator', 'auditor'];

/** What happens before a claim is written: receipts and charges come in, are matched, and become lines. */
export default function Gather({ person }: { person: Person }) {
  const keeps = person.roles.some((role) => KEEPERS.includes(role));
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <nav
        aria-label="Gather"
        className="flex shrink-0 gap-1 overflow-x-auto border-b border-base-300 bg-base-100 px-2 sm:px-4"
      >
        <Part to="receipts" name="Receipts" />
        <Part to="charges" name="Card charges" />
        <Part to="pairs" name="Pairs" />
        <Part to="cards" name="Cards by month" />
        {keeps && <Part to="statements" name="Statements" />}
      </nav>
      <Routes>
        <Route path="receipts/:id?" element={<Receipts />} />
        <Route path="charges" element={<Charges />} />
        <Route path="pairs" element={<Pairs />} />
        <Route path="cards" element={<Cards />} />
        <Route path="cards/:card/:month" element={<Month />} />
        {keeps && <Route path="statements" element={<Statements person={person} />} />}
        <Route path="*" element={<Navigate to="/gather/receipts" replace />} />
      </Routes>
    </div>
  );
}

function Part({ to, name }: { to: string; name: string }) {
  return (
    <NavLink
      to={`/gather/${to}`}
      className={({ isActive }) =>
        `border-b-2 px-2 py-2 text-sm whitespace-nowrap ${isActive ? 'border-primary font-semibold' : 'border-transparent'}`
      }
    >
      {name}
    </NavLink>
  );
}
