import { Link, useLocation } from 'react-router';
import { useHere } from '../lib/useClient';
import { Empty } from './Notice';

/** An address at which the client has nothing: mistyped, or a page that is called otherwise now. */
export function Nowhere() {
  const { to } = useHere();
  const { pathname } = useLocation();
  return (
    <Empty title="There is no page at this address." action={<Link to={to('audit')}>Audit, where the day begins</Link>}>
      Vestigon has nothing at <code>{pathname}</code>. The sections are above; Ctrl+K finds elements, texts and pages.
    </Empty>
  );
}
