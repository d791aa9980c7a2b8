import type { Schema } from '../../api/client';

const WORDS: Record<string, string> = {
  'sign-in': 'signed in',
  'sign-in-with-code': 'signed in, with a code',
  'sign-in-failed': 'a wrong password was typed',
  'code-failed': 'a wrong code was typed',
  'sign-out': 'signed out',
  'password-changed': 'changed the password',
  'password-reset': 'chose another password by mail',
  'second-factor-on': 'turned the second factor on',
  'second-factor-off': 'turned the second factor off',
  'session-ended': 'ended a session',
  'other-sessions-ended': 'ended all other sessions',
  'role-given': 'gave a role',
  'role-changed': 'changed a role',
  'role-taken': 'took a role away',
  'rules-changed': 'changed how changes go out',
};

/** An entry of the audit in words. */
export const told = (entry: Schema['AuditEntry']): string => WORDS[entry.what] ?? entry.what;
