import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { api, ApiError, data } from './api/client';
import { Nowhere } from './components/Nowhere';
import { Notice } from './components/Notice';
import { FirstClient } from './features/people/NewClient';
import { SignIn } from './features/session/SignIn';
import { Shell } from './features/shell/Shell';
import { keyOf } from './lib/queries';

const AuditPage = lazy(() => import('./features/audit/AuditPage'));
const PlanPage = lazy(() => import('./features/plan/PlanPage'));
const WordsPage = lazy(() => import('./features/agree/WordsPage'));
const NamesPage = lazy(() => import('./features/agree/NamesPage'));
const ChannelsPage = lazy(() => import('./features/agree/ChannelsPage'));
const AccountsPage = lazy(() => import('./features/accounts/AccountsPage'));
const IntakePage = lazy(() => import('./features/intake/IntakePage'));
const TracePage = lazy(() => import('./features/trace/TracePage'));
const ChangesPage = lazy(() => import('./features/changes/ChangesPage'));
const ArrivalsPage = lazy(() => import('./features/arrivals/ArrivalsPage'));
const ResultsPage = lazy(() => import('./features/results/ResultsPage'));
const NumbersPage = lazy(() => import('./features/numbers/NumbersPage'));
const BalancePage = lazy(() => import('./features/balance/BalancePage'));
const FeedsPage = lazy(() => import('./features/feeds/FeedsPage'));
const LinksPage = lazy(() => import('./features/links/LinksPage'));
const PlatformsPage = lazy(() => import('./features/platforms/PlatformsPage'));
const YouPage = lazy(() => import('./features/session/YouPage'));
const PeoplePage = lazy(() => import('./features/people/PeoplePage'));
const Join = lazy(() => import('./features/session/Join'));
const Reset = lazy(() => import('./features/session/Reset'));

export function App() {
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route path="/reset" element={<Reset />} />
        <Route path="/join" element={<Join />} />
        <Route path="*" element={<SignedIn />} />
      </Routes>
    </Suspense>
  );
}

function SignedIn() {
  const session = useQuery({
    queryKey: keyOf('session'),
    queryFn: () => data(api.GET('/session')),
    staleTime: Infinity,
  });
  if (session.isPending) return null;
  if (session.error) {
    return session.error instanceof ApiError && session.error.status === 401 ? (
      <SignIn onDone={() => void session.refetch()} />
    ) : (
      <Notice>{session.error.message}</Notice>
    );
  }
  const first =
    session.data.clients.find((c) => c.slug === localStorage.getItem('client')) ??
    session.data.clients[session.data.clients.length - 1];
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route path="/:slug" element={<Shell session={session.data} />}>
          <Route index element={<Navigate to="audit" replace />} />
          <Route path="audit" element={<AuditPage />} />
          <Route path="plan" element={<PlanPage />} />
          <Route path="plan/words" element={<WordsPage />} />
          <Route path="plan/channels" element={<ChannelsPage />} />
          <Route path="plan/names" element={<NamesPage />} />
          <Route path="accounts/:account?" element={<AccountsPage />} />
          <Route path="accounts/in/:intake" element={<IntakePage />} />
          <Route path="trace/:node?" element={<TracePage />} />
          <Route path="changes/:change?" element={<ChangesPage />} />
          <Route path="arrivals" element={<ArrivalsPage />} />
          <Route path="results" element={<ResultsPage />} />
          <Route path="results/balance" element={<BalancePage />} />
          <Route path="results/numbers" element={<NumbersPage />} />
          <Route path="feeds/:feed?" element={<FeedsPage />} />
          <Route path="links" element={<LinksPage />} />
          <Route path="platforms/:platform?" element={<PlatformsPage />} />
          <Route path="platforms/over/trackers" element={<PlatformsPage trackers />} />
          <Route path="you" element={<YouPage />} />
          <Route path="people" element={<PeoplePage />} />
          <Route path="*" element={<Nowhere />} />
        </Route>
        <Route
          path="*"
          element={
            first ? (
              <Navigate to={`/${first.slug}/audit`} replace />
            ) : session.data.user.mayFound ? (
              <FirstClient name={session.data.user.name} />
            ) : (
              <Notice>You are not a member of any client yet. Ask an owner to add you.</Notice>
            )
          }
        />
      </Routes>
    </Suspense>
  );
}
