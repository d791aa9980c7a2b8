import { Button, CopyButton, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { SiteFiles } from './SiteFiles';
import css from './people.module.css';

type Site = Schema['Sites']['items'][number];

const WHY: Record<string, string> = {
  'foreign-origin': 'from pages of other hosts',
  'foreign-address': 'of addresses on other hosts',
  program: 'of programs that say what they are',
  'no-event': 'not readable',
  'no-events': 'not readable',
  'no-conversion': 'no conversions',
  'no-refund': 'refunds that can’t be read',
  'huge-value': 'of a huge value',
  ahead: 'of a day to come',
  'too-late': 'too old',
  'too-large': 'too large',
  'too-many': 'too many at once',
};

/** Where the client's arrivals come from: pages with our script in their heads, and analytics that are read. */
export function Sites() {
  const { client } = useHere();
  const changed = useChanged();
  const sites = useQuery({
    queryKey: keyOf('sites', client.id),
    queryFn: () => data(api.GET('/clients/{client}/sites', { params: { path: { client: client.id } } })),
  });
  const end = useMutation({
    mutationFn: (collector: number) =>
      data(api.DELETE('/clients/{client}/sites/{collector}', { params: { path: { client: client.id, collector } } })),
    onSuccess: () => changed('sites'),
  });
  if (sites.error) return <Notice>{sites.error.message}</Notice>;
  if (!sites.data) return null;
  return (
    <>
      <h2>Where its arrivals come from</h2>
      {end.error && <Notice>{end.error.message}</Notice>}
      {sites.data.items.length > 0 && (
        <table className={css.table}>
          <thead>
            <tr>
              <th scope="col">site</th>
              <th scope="col">reports</th>
              <th scope="col">last arrival</th>
              <th scope="col">
                <span className="visually-hidden">end it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sites.data.items.map((s) => (
              <tr key={s.id}>
                <td>
                  <b>{s.name}</b>
                  <br />
                  <span className="quiet">{s.hosts.join(', ') || 'an analytics that is read'}</span>
                </td>
                <td>
                  <Reports site={s} />
                </td>
                <td>{s.lastAt ? moment(s.lastAt) : 'none yet'}</td>
                <td>
                  {s.key && (
                    <Button
                      size="compact-xs"
                      variant="subtle"
                      aria-label={`let ${s.name} report no more`}
                      onClick={() => end.mutate(s.id)}
                    >
                      End it
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <AddSite />
    </>
  );
}

function Reports({ site }: { site: Site }) {
  const refused = site.refused.reduce((n, r) => n + r.n, 0);
  return (
    <>
      {site.script && (
        <>
          <code className={css.script}>{site.script}</code>
          <CopyButton value={site.script}>
            {({ copied, copy }) => (
              <Button size="compact-xs" variant="default" onClick={copy}>
                {copied ? 'copied' : 'Copy it'}
              </Button>
            )}
          </CopyButton>
        </>
      )}
      {site.script && <Token site={site} />}
      {site.script && <SiteFiles site={site} />}
      {!site.script && <span className="quiet">{site.problem ?? 'read every second'}</span>}
      {refused > 0 && (
        <div className="quiet">
          {num(refused)} not taken in 7 days: {site.refused.map((r) => `${num(r.n)} ${WHY[r.why] ?? r.why}`).join(', ')}
        </div>
      )}
    </>
  );
}

/** What servers hand conversions in by: told once. */
function Token({ site }: { site: Site }) {
  const { client } = useHere();
  const changed = useChanged();
  const make = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/sites/{collector}/token', {
          params: { path: { client: client.id, collector: site.id } },
        }),
      ),
    onSuccess: () => changed('sites'),
  });
  return (
    <div className={css.token}>
      {make.error && <Notice>{make.error.message}</Notice>}
      {make.data ? (
        <>
          <code className={css.script}>
            POST {make.data.address} · Authorization: Bearer {make.data.token}
          </code>
          <CopyButton value={make.data.token}>
            {({ copied, copy }) => (
              <Button size="compact-xs" variant="default" onClick={copy}>
                {copied ? 'copied' : 'Copy the token'}
              </Button>
            )}
          </CopyButton>{' '}
          <span className="quiet">It is not shown again.</span>
        </>
      ) : (
        <Button size="compact-xs" variant="subtle" onClick={() => make.mutate()}>
          {site.hasToken ? 'Another token for servers' : 'A token for servers that hand in conversions'}
        </Button>
      )}
    </div>
  );
}

function AddSite() {
  const { client } = useHere();
  const changed = useChanged();
  const [name, setName] = useState('');
  const [hosts, setHosts] = useState('');
  const add = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/sites', {
          params: { path: { client: client.id } },
          body: { name: name.trim(), hosts: hosts.split(/[\s,]+/).filter((h) => h !== '') },
        }),
      ),
    onSuccess: () => {
      setName('');
      setHosts('');
      changed('sites');
    },
  });
  return (
    <form
      className={css.invite}
      aria-label="let the pages of a site report"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <TextInput
        size="xs"
        label="Let the pages of a site report"
        placeholder="What it is called"
        required
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <TextInput
        size="xs"
        w={300}
        aria-label="hosts of its pages"
        placeholder="shop.example, stories.example"
        required
        value={hosts}
        onChange={(e) => setHosts(e.target.value)}
      />
      <Button type="submit" size="xs" variant="default" loading={add.isPending}>
        Add it
      </Button>
      {add.error && <Notice>{add.error.message}</Notice>}
    </form>
  );
}
