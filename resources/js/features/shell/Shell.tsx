import { ActionIcon, Menu, UnstyledButton, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { IconMoon, IconSearch, IconSun } from '@tabler/icons-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { NavLink, Outlet, useNavigate, useParams } from 'react-router';
import { api, type Schema } from '../../api/client';
import { Empty } from '../../components/Notice';
import { HereContext } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { OutsideMark } from '../outside/OutsideMark';
import { NewClient } from '../people/NewClient';
import { SignInAgain } from '../session/SignIn';
import { Finder } from './Finder';
import { KeysHelp } from './KeysHelp';
import { Rules } from './Rules';
import { RunningWork } from './RunningWork';
import css from './shell.module.css';

const SECTIONS = [
  ['audit', 'Audit'],
  ['plan', 'Plan'],
  ['accounts', 'Accounts'],
  ['trace', 'Trace'],
  ['changes', 'Changes'],
  ['arrivals', 'Arrivals'],
  ['results', 'Results'],
  ['feeds', 'Feeds'],
  ['links', 'Links'],
  ['platforms', 'Platforms'],
] as const;

export function Shell({ session }: { session: Schema['Session'] }) {
  const { slug } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [finding, setFinding] = useState(false);
  const [help, setHelp] = useState(false);
  const [rules, setRules] = useState(false);
  const [making, setMaking] = useState(false);
  const client = session.clients.find((c) => c.slug === slug);
  const to = useCallback((page: string) => `/${slug}/${page}`, [slug]);
  const here = useMemo(
    () => (client ? { session, client, to, mayEdit: client.role === 'editor' || client.role === 'owner' } : null),
    [client, session, to],
  );

  useEffect(() => {
    if (client) localStorage.setItem('client', client.slug);
  }, [client]);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setFinding(true);
      }
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  useKeys(
    useMemo(
      () => ({
        '?': () => setHelp(true),
        ...Object.fromEntries(SECTIONS.map(([page], i) => [String(i), () => void navigate(to(page))])),
      }),
      [navigate, to],
    ),
  );

  if (!here || !client) {
    return (
      <Empty title="That client is not yours to see" action={<a href="/">Go to your clients</a>}>
        There is no client “{slug}”, or you are not one of its members. Ask one of its owners to add you.
      </Empty>
    );
  }
  const signOut = async () => {
    await api.DELETE('/session');
    queries.clear();
    window.location.assign('/');
  };
  return (
    <HereContext.Provider value={here}>
      <div className={css.shell}>
        <header className={css.top}>
          <span className={css.brand}>
            <svg viewBox="0 0 20 16" width="20" height="16" aria-hidden>
              <path d="M1 2h18M1 8h12M1 14h7" stroke="currentColor" strokeWidth="2.6" />
            </svg>
            Vestigon
          </span>
          <Menu position="bottom-start" width={260}>
            <Menu.Target>
              <UnstyledButton className={css.client} aria-label="client">
                {client.name} <span aria-hidden>▾</span>
              </UnstyledButton>
            </Menu.Target>
            <Menu.Dropdown>
              {session.clients.map((c) => (
                <Menu.Item
                  key={c.id}
                  onClick={() => void navigate(`/${c.slug}/audit`)}
                  rightSection={<span className="quiet">{c.role}</span>}
                >
                  {c.name}
                </Menu.Item>
              ))}
              {session.user.mayFound && (
                <>
                  <Menu.Divider />
                  <Menu.Item onClick={() => setMaking(true)}>Another client …</Menu.Item>
                </>
              )}
            </Menu.Dropdown>
          </Menu>
          <nav className={css.route} aria-label="sections in the order of work">
            {SECTIONS.map(([page, name], i) => (
              <NavLink key={page} to={to(page)} className={({ isActive }) => `${css.stop} ${isActive ? css.here : ''}`}>
                <i aria-hidden />
                {name}
                {page === 'changes' && <OutsideMark />}
                <kbd aria-hidden>{i}</kbd>
              </NavLink>
            ))}
          </nav>
          <RunningWork />
          <UnstyledButton className={css.find} onClick={() => setFinding(true)} aria-label="Find anything">
            <IconSearch size={15} /> <kbd>Ctrl K</kbd>
          </UnstyledButton>
          <Scheme />
          <Menu position="bottom-end">
            <Menu.Target>
              <UnstyledButton className={css.who} aria-label={`signed in as ${session.user.name}`}>
                {session.user.name
                  .split(' ')
                  .map((w) => w[0])
                  .join('')}
              </UnstyledButton>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Label>
                {session.user.name} · {client.role}
              </Menu.Label>
              <Menu.Item onClick={() => void navigate(to('you'))}>Your way in</Menu.Item>
              {client.role === 'owner' && (
                <Menu.Item onClick={() => void navigate(to('people'))}>People and client</Menu.Item>
              )}
              <Menu.Item onClick={() => setRules(true)}>How changes go out</Menu.Item>
              <Menu.Item onClick={() => setHelp(true)} rightSection={<kbd>?</kbd>}>
                Keys
              </Menu.Item>
              <Menu.Item onClick={() => void signOut()}>Sign out</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </header>
        <main className={css.main}>
          <Outlet key={client.id} />
        </main>
      </div>
      <Finder opened={finding} onClose={() => setFinding(false)} />
      <KeysHelp opened={help} onClose={() => setHelp(false)} />
      {rules && <Rules onClose={() => setRules(false)} />}
      {making && <NewClient onClose={() => setMaking(false)} />}
      <SignInAgain />
    </HereContext.Provider>
  );
}

function Scheme() {
  const { setColorScheme } = useMantineColorScheme();
  const now = useComputedColorScheme('light');
  return (
    <ActionIcon
      variant="subtle"
      color="gray"
      size="md"
      aria-label={now === 'dark' ? 'light colours' : 'dark colours'}
      onClick={() => setColorScheme(now === 'dark' ? 'light' : 'dark')}
    >
      {now === 'dark' ? <IconSun size={17} /> : <IconMoon size={17} />}
    </ActionIcon>
  );
}
