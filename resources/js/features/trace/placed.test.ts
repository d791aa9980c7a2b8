import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { Document } from '../platforms/document';
import { placed } from './placed';

const shipped = (id: string) => JSON.parse(readFileSync(`core/dialects/${id}.json`, 'utf8')) as Document;

describe('where a pasted text belongs', () => {
  it('takes an address for a landing URL, and what holds the landing token for a template', () => {
    const northquay = shipped('northquay-search');
    expect(placed(northquay, 'https://velmar.example/book?utm_source=x')).toEqual({ level: 'ad', slot: 'landing' });
    expect(placed(northquay, '{landing}?utm_source=x')).toEqual({ level: 'account', slot: 'template' });
    expect(placed(northquay, 'https://go.example/r?to={landing.enc2}')?.slot).toBe('template');
    expect(placed(northquay, 'utm_source=x&utm_medium=cpc')).toEqual({ level: 'account', slot: 'suffix' });
  });

  it('says so where a platform has no slot for it', () => {
    expect(placed(shipped('oldgate-portal'), 'utm_source=x')).toBeNull();
  });
});
