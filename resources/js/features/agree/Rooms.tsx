import { useMemo, type ReactNode } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import css from './agree.module.css';

const ROOMS = [
  { path: 'plan', label: 'What clicks carry', key: 'm' },
  { path: 'plan/words', label: 'Words', key: 'w' },
  { path: 'plan/channels', label: 'Channels', key: 'h' },
  { path: 'plan/names', label: 'Names', key: 'n' },
] as const;

/** The rooms of the plan: what is agreed on. */
export function Rooms({ children }: { children?: ReactNode }) {
  const { to } = useHere();
  const navigate = useNavigate();
  useKeys(
    useMemo(
      () => Object.fromEntries(ROOMS.map((room) => [room.key, () => void navigate(to(room.path))])),
      [navigate, to],
    ),
  );
  return (
    <nav className={css.rooms} aria-label="what is agreed on">
      {ROOMS.map((room) => (
        <NavLink key={room.path} to={to(room.path)} end className={({ isActive }) => (isActive ? css.here : '')}>
          {room.label} <kbd>{room.key}</kbd>
        </NavLink>
      ))}
      {children}
    </nav>
  );
}
