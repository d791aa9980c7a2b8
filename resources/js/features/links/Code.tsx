import { CopyButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { keyOf } from '../../lib/queries';
import css from './links.module.css';

/** Pixels of a picture that is printed. */
const PRINTED = 1200;

/** ISO/IEC 18004: level M, and a quiet zone of four modules around it. */
const AS = { errorCorrectionLevel: 'M', margin: 4 } as const;

/** A short address with its code, to be copied, printed, put on a poster. */
export function Code({ address, name }: { address: string; name: string }) {
  const svg = useQuery({
    queryKey: keyOf('code', address),
    queryFn: async () => (await import('qrcode')).toString(address, { ...AS, type: 'svg' }),
    staleTime: Infinity,
  });
  const picture = `data:image/svg+xml,${encodeURIComponent(svg.data ?? '')}`;
  const asPng = async () => {
    const { toDataURL } = await import('qrcode');
    const link = document.createElement('a');
    link.href = await toDataURL(address, { ...AS, width: PRINTED });
    link.download = `${name}.png`;
    link.click();
  };
  return (
    <div className={css.code}>
      {svg.data && <img src={picture} alt={`code that leads to ${address}`} width={132} height={132} />}
      <div>
        <b className="mono">{address.replace(/^https?:\/\//, '')}</b>
        <CopyButton value={address}>
          {({ copied, copy }) => (
            <button type="button" className={css.link} onClick={copy}>
              {copied ? 'copied' : 'copy it'}
            </button>
          )}
        </CopyButton>
        <a href={picture} download={`${name}.svg`}>
          code as SVG
        </a>
        <button type="button" className={css.link} onClick={() => void asPng()}>
          code as PNG
        </button>
      </div>
    </div>
  );
}
