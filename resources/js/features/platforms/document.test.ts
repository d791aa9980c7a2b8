import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { anotherName, clickFields, firstTexts, gives, typesAt, written, type Document } from './document';

const shipped = (id: string) => JSON.parse(readFileSync(`core/dialects/${id}.json`, 'utf8')) as Document;

describe('a platform, read as a person would', () => {
  const northquay = shipped('northquay-search');
  const slot = (kind: string) => northquay.slots.find((s) => s.kind === kind)!;
  const token = (name: string) => northquay.tokens.find((t) => t.name === name)!;

  it('writes tokens as they are typed', () => {
    expect(written(northquay, token('term'))).toBe('{term}');
    expect(written(northquay, token('phone-only'))).toBe('{phone-only:…}');
    expect(written(shipped('mossfeed'), { name: 'site', kind: 'value', field: 'publisher.name' })).toBe('~site~');
  });

  it('says in words what each gives', () => {
    expect(gives(token('landing'))).toBe('the landing URL; encoded unless the template begins with it');
    expect(gives(token('landing.raw'))).toBe('the landing URL as it is');
    expect(gives(token('landing.enc2'))).toBe('the landing URL, encoded twice');
    expect(gives(token('match'))).toBe('keyword.match, spelled exact → e, phrase → p, broad → b');
    expect(gives(token('term.enc2'))).toBe('keyword.text, encoded twice');
    expect(gives(token('search-only'))).toBe('its text, if network is search or partner');
  });

  it('knows on which levels which campaign types read a slot', () => {
    expect(typesAt(northquay, slot('suffix'), 'group')).toBe('all');
    expect(typesAt(northquay, slot('template'), 'account')).toEqual(['text']);
    expect(typesAt(northquay, slot('template'), 'campaign')).toEqual(['text', 'video']);
    expect(typesAt(northquay, slot('landing'), 'account')).toBe('none');
  });

  it('begins a trial with something that each shipped platform can carry', () => {
    for (const id of [
      'bannerloom',
      'guildloft',
      'hearthring',
      'mossfeed',
      'northquay-search',
      'oldgate-portal',
      'pellworth-search',
      'reedrail',
    ]) {
      const document = shipped(id);
      const texts = firstTexts(document);
      for (const [level, slots] of Object.entries(texts)) {
        for (const kind of Object.keys(slots))
          expect(
            document.slots.some((s) => s.kind === kind && s.levels.includes(level)),
            `${id} ${level} ${kind}`,
          ).toBe(true);
      }
      expect(texts[document.levels.at(-1)!.id]?.landing).toMatch(/^https:/);
    }
  });

  it('asks for the fields that only a click gives', () => {
    expect(clickFields(shipped('hearthring'))).toEqual(['placement', 'surface', 'click.id']);
    expect(clickFields(shipped('oldgate-portal'))).toEqual([]);
    expect(clickFields(shipped('pellworth-search'))).toContain('keyword.text');
  });

  it('gives a copy an id and a title of its own', () => {
    expect(anotherName('format: vestigon.dialect/1\nid: mossfeed\ntitle: Mossfeed\nfamily: native\n')).toBe(
      "format: vestigon.dialect/1\nid: my-mossfeed\ntitle: 'My Mossfeed'\nfamily: native\n",
    );
    expect(anotherName("id: x\ntitle: 'Oldgate Portal'\n")).toBe("id: my-x\ntitle: 'My Oldgate Portal'\n");
  });
});
