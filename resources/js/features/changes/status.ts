import type { Schema } from '../../api/client';

export const STATUS: Record<Schema['ChangeStatus'], string> = {
  drafting: 'being worked out',
  ready: 'ready to apply',
  applying: 'being applied',
  done: 'applied and read back',
  partly: 'applied in part',
  stopped: 'stopped',
  failed: 'failed',
};
