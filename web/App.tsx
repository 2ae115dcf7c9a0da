import { Fragment, type ReactNode } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { useSession, type Person } from './api/session.ts';
import { ErrorBoundary } from './parts/ErrorBoundary.tsx';
import { Loading, Trouble } from './parts/Notices.tsx';
import { page } from './parts/page.tsx';
import { homeOf, placesOf } from './parts/places.ts';
import { Shell } from './parts/Shell.tsx';
import { SignIn } from './screens/SignIn/SignIn.tsx';
import { titleOf } from './parts/titleOf.ts';

const Desk = page('Desk', () => import('./screens/Desk/Desk.tsx'));
const ClearingRun = page('ClearingRun', () => import('./screens/Desk/ClearingRun.tsx'));
const Sheet = page('Sheet', () => import('./screens/Sheet/Sheet.tsx'), 'sheet');
const Ledger = page('Ledger', () => import('./screens/Ledger/Ledger.tsx'));
const Journal = page('Journal', () => import('./screens/Ledger/Journal.tsx'));
const Gather = page('Gather', () => import('./screens/Gather/Gather.tsx'));
const Plans = page('Plans', () => import('./screens/Plans/Plans.tsx'));
const PlanPage = page('PlanPage', () => import('./screens/Plans/PlanPage.tsx'));
const Advances = page('Advances', () => import('./screens/Advances/Advances.tsx'));
const AdvancePage = page('AdvancePage', () => import('./screens/Advances/AdvancePage.tsx'));
const Register = page('Register', () => import('./screens/Advances/Register.tsx'));
const Approvals = page('Approvals', () => import('./screens/Approvals/Approvals.tsx'));
const Setup = page('Setup', () => import('./screens/Setup/Setup.tsx'));
const OwnClaims = page('OwnClaims', () => import('./screens/Claims/OwnClaims.tsx'));
const NewPassword = page('NewPassword', () => import('./screens/SignIn/NewPassword.tsx'));
const Messages = page('Messages', () => import('./screens/Messages/Messages.tsx'));
const Account = page('Account', () => import('./screens/Account/Account.tsx'));
const ClaimPage = page('ClaimPage', () => import('./screens/Claims/ClaimPage.tsx'));

/** Who is signed in decides what there is: the sign-in, or the shell with the person's places. */
export function App() {
  const { data, error, mutate } = useSession();
  const location = useLocation();
  if (location.pathname === '/new-password') return <Titled as="New password · Ebbet" of={<NewPassword />} />;
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="page" />;
  if (!data.person) return <Titled as="Sign in · Ebbet" of={<SignIn demo={data.demo} />} />;
  return (
    <Shell person={data.person}>
      <title>{titleOf(location.pathname)}</title>
      <ErrorBoundary path={location.pathname}>
        <Places person={data.person} />
      </ErrorBoundary>
    </Shell>
  );
}

/** A page with what the browser's tab calls it. */
const Titled = ({ as, of }: { as: string; of: ReactNode }) => (
  <>
    <title>{as}</title>
    {of}
  </>
);

/** A page of one record begins anew with every record: nothing that was typed about one is about the next. */
function Anew({ of }: { of: ReactNode }) {
  return <Fragment key={useLocation().pathname}>{of}</Fragment>;
}

function Places({ person }: { person: Person }) {
  const places = placesOf(person);
  const sees = (path: string) => places.some((place) => place.path === path);
  return (
    <Routes>
      {sees('/desk') && (
        <>
          <Route path="/desk" element={<Desk />} />
          <Route path="/desk/together/:run" element={<ClearingRun />} />
          <Route path="/desk/:number" element={<Anew of={<Sheet />} />} />
        </>
      )}
      {sees('/ledger') && (
        <>
          <Route path="/ledger" element={<Ledger person={person} />} />
          <Route path="/ledger/:number" element={<Anew of={<Journal />} />} />
        </>
      )}
      {sees('/approvals') && <Route path="/approvals" element={<Approvals />} />}
      {sees('/setup') && <Route path="/setup" element={<Setup person={person} />} />}
      <Route path="/gather/*" element={<Gather person={person} />} />
      <Route path="/messages" element={<Messages />} />
      <Route path="/account" element={<Account person={person} />} />
      <Route path="/plans" element={<Plans />} />
      <Route path="/plans/:number" element={<Anew of={<PlanPage />} />} />
      <Route path="/advances" element={<Advances person={person} />} />
      {sees('/ledger') && <Route path="/advances/register" element={<Register />} />}
      <Route path="/advances/:number" element={<Anew of={<AdvancePage />} />} />
      <Route path="/claims" element={<OwnClaims />} />
      <Route path="/claims/:number" element={<Anew of={<ClaimPage />} />} />
      <Route path="*" element={<Navigate to={homeOf(person)} replace />} />
    </Routes>
  );
}
