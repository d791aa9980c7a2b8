import { Modal } from '@mantine/core';
import { api, type Schema } from '../../api/client';
import { Door } from '../session/SignIn';
import { ClientForm } from './ClientForm';

const make = (body: Schema['ClientBody']) => api.POST('/clients', { body });

const go = ({ slug }: { slug: string }) => window.location.assign(`/${slug}/accounts`);

/** One more client. */
export function NewClient({ onClose }: { onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Another client">
      <ClientForm words="Make it" on={make} onDone={go} />
    </Modal>
  );
}

/** The first client: there is nothing to see before there is one. */
export function FirstClient({ name }: { name: string }) {
  return (
    <Door line={`Welcome, ${name}. Whose clicks is it about?`}>
      <ClientForm words="Make this client" on={make} onDone={go} />
    </Door>
  );
}
