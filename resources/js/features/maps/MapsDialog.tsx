import { Button, FileButton, Modal } from '@mantine/core';
import { useState } from 'react';
import type { Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { Headings } from './Headings';
import { useForgetting, useKeeping, useMaps } from './useMaps';
import css from './maps.module.css';

/** How a platform's sheets name their columns: said once, used for every sheet, handed on as files. */
export function MapsDialog({ dialect, onClose }: { dialect: string; onClose: () => void }) {
  const { client, mayEdit } = useHere();
  const maps = useMaps(dialect);
  const keep = useKeeping(() => undefined);
  const forget = useForgetting();
  const [bad, setBad] = useState<string | null>(null);
  const bring = async (file: File) => {
    setBad(null);
    try {
      const document = JSON.parse(await file.text()) as Schema['SheetMapDocument'];
      keep.mutate({ ...document, title: document.title || file.name.replace(/\.json$/i, '') });
    } catch {
      setBad(`${file.name} is not JSON. Choose a map that was taken away here.`);
    }
  };
  return (
    <Modal opened onClose={onClose} title="How the sheet names its columns" size="lg">
      {maps.length > 0 && (
        <ul className={css.maps} aria-label="maps that are kept">
          {maps.map((map) => (
            <li key={map.id}>
              <b>{map.title}</b>
              <span className="quiet">{map.tables.map((t) => t.headings.join(', ')).join(' · ')}</span>
              <Button
                size="compact-xs"
                variant="subtle"
                component="a"
                href={`/api/v1/clients/${client.id}/sheet-maps/${map.id}`}
                download
              >
                Take it as a file
              </Button>
              {mayEdit && (
                <Button size="compact-xs" variant="subtle" color="red" onClick={() => forget.mutate(map.id)}>
                  Forget it
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {mayEdit && (
        <>
          <div className={css.bring}>
            <span className="quiet">A colleague has said it already?</span>
            <FileButton accept=".json,application/json" onChange={(file) => file && void bring(file)}>
              {(props) => (
                <Button {...props} size="compact-xs" variant="default" loading={keep.isPending}>
                  Bring a map in
                </Button>
              )}
            </FileButton>
          </div>
          {(bad ?? keep.error) && <Notice>{bad ?? keep.error?.message}</Notice>}
          <Headings dialect={dialect} onKept={onClose} />
        </>
      )}
    </Modal>
  );
}
