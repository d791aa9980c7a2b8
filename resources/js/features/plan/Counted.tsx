import { Select } from '@mantine/core';
import type { Schema } from '../../api/client';
import css from './plan.module.css';

interface Props {
  samples: Schema['PlanPreview']['samples'];
  channels: readonly string[];
  wanted: Readonly<Record<string, string>>;
  onWanted?: (wanted: Record<string, string>) => void;
}

/** In which channel the clicks of each platform and type are counted, and in which they are to be. */
export function Counted({ samples, channels, wanted, onWanted }: Props) {
  const set = (family: string, channel: string | null) => {
    const next = { ...wanted };
    if (channel === null) delete next[family];
    else next[family] = channel;
    onWanted?.(next);
  };
  return (
    <tr className={css.counted}>
      <td colSpan={6}>
        counted as
        <span>the channel that reports put these clicks in; one can be wanted for each kind of platform</span>
      </td>
      {samples.map((s) => (
        <td key={s.platform + s.type} className={css.sample}>
          <b
            title={s.channel.why}
            data-wrong={(s.channel.wanted ?? s.channel.channel) !== s.channel.channel || undefined}
          >
            {s.channel.channel}
          </b>
          <Select
            size="xs"
            aria-label={`wanted for ${s.family}, ${s.platform} ${s.type}`}
            placeholder="any will do"
            clearable
            disabled={!onWanted}
            data={[...channels]}
            value={s.channel.wanted}
            onChange={(channel) => set(s.family, channel)}
          />
        </td>
      ))}
    </tr>
  );
}
