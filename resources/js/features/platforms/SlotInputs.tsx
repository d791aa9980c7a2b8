import type { Document } from './document';
import type { Texts } from './useTrial';

interface Props {
  document: Document;
  texts: Texts;
  className?: string;
  /** the slot that something was just put into */
  placed?: { level: string; slot: string } | null;
  onChange: (level: string, slot: string, text: string) => void;
}

/** Every slot of every level, to type in. */
export function SlotInputs({ document, texts, className, placed, onChange }: Props) {
  return document.levels.flatMap((level) =>
    document.slots
      .filter((s) => s.levels.includes(level.id))
      .map((s) => (
        <label
          key={`${level.id} ${s.kind}`}
          className={className}
          data-placed={(placed?.level === level.id && placed.slot === s.kind) || undefined}
        >
          <span>
            {level.label} <b>{s.kind}</b>
          </span>
          <input
            className="mono"
            spellCheck={false}
            value={texts[level.id]?.[s.kind] ?? ''}
            onChange={(e) => onChange(level.id, s.kind, e.target.value)}
          />
        </label>
      )),
  );
}
