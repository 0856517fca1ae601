import { describe, expect, it } from 'vitest';
import { docxBody, docxOf } from '../../../tests/fixtures/office-files.ts';
import { requireOfficeXml } from './office-xml.ts';
import { readDocx } from './read-document.ts';

const plain = docxBody('The kiln stood cold for nine days.');
const doctype = '<!DOCTYPE a [<!ENTITY b "c">]>';

describe('the XML of a document', () => {
  it('passes when it is what a person writes', async () => {
    await expect(requireOfficeXml(docxOf(plain))).resolves.toBeUndefined();
    expect((await readDocx(docxOf(plain))).text).toBe('The kiln stood cold for nine days.');
  });

  it.each([
    ['a type definition before it', plain.replace('<w:document', `${doctype}<w:document`)],
    ['type definitions within', plain.replace('kiln', doctype.repeat(5_000))],
    ['tags in tags', plain.replace('<w:document', `${'<w:d<w:r><w:tw:d'.repeat(3_000)}<w:document`)],
    ['an end missing', plain.slice(0, -9)],
    ['elements nested by the thousand', plain.replace('kiln', `${'<w:p>'.repeat(4_000)}${'</w:p>'.repeat(4_000)}`)],
    ['a prefix of nobody', plain.replace('kiln', '<z:b/>')],
  ])('is refused with a sentence: %s', async (_, body) => {
    await expect(readDocx(docxOf(body))).rejects.toMatchObject({ status: 422, code: 'not-a-document' });
  });
});
