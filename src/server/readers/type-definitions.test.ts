import { describe, expect, it } from 'vitest';
import { docxBody, docxOf } from '../../../tests/fixtures/office-files.ts';
import { readDocx } from './read-document.ts';
import { holdsTypeDefinitions } from './type-definitions.ts';

describe('a document with type definitions', () => {
  const plain = docxBody('The kiln stood cold for nine days.');

  it('is told from one without', async () => {
    expect(await holdsTypeDefinitions(docxOf(plain))).toBe(false);
    expect(await holdsTypeDefinitions(docxOf(plain.replace('<w:document', '<!DOCTYPE a [<!ENTITY b "c">]><w:document')))).toBe(true);
    expect(await holdsTypeDefinitions(docxOf(plain.replace('kiln', '<!doctype a>')))).toBe(true);
  });

  it('is refused with a sentence, and one without is read', async () => {
    await expect(readDocx(docxOf(plain.replace('kiln', '<!DOCTYPE a [<!ENTITY b "c">]>'.repeat(5_000))))).rejects.toMatchObject({ status: 422, code: 'not-a-document' });
    expect((await readDocx(docxOf(plain))).text).toBe('The kiln stood cold for nine days.');
  });
});
