/** Elements that begin a line of their own. */
const BLOCKS: ReadonlySet<string> = new Set(['P', 'DIV', 'SECTION', 'ARTICLE', 'BLOCKQUOTE', 'H1', 'H2', 'H3', 'H4', 'H5', 'H6', 'UL', 'OL', 'LI', 'TABLE', 'TR']);

/**
 * Pasted HTML as Markdown, as far as points are found by: headings, lists in lists, and paragraphs. Null where it holds no list and no heading:
 * then the plain text that comes with it says as much, and a range of a spreadsheet is a table there.
 */
export function textOfHtml(html: string): string | null {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  if (!body.querySelector('li, h1, h2, h3, h4, h5, h6')) return null;
  return linesOf(body, 0).join('\n').replace(/\n{3,}/g, '\n\n').trim();
}

function linesOf(element: Element, depth: number): readonly string[] {
  const lines: string[] = [];
  let words = '';
  const end = (): void => {
    const line = words.replace(/\s+/g, ' ').trim();
    if (line !== '') lines.push(line);
    words = '';
  };
  for (const node of element.childNodes) {
    if (!(node instanceof Element)) words += node.textContent ?? '';
    else if (node.tagName === 'BR') end();
    else if (!BLOCKS.has(node.tagName)) words += node.textContent ?? '';
    else {
      end();
      lines.push(...blockLines(node, depth));
    }
  }
  end();
  return lines;
}

function blockLines(block: Element, depth: number): readonly string[] {
  if (block.tagName === 'LI') {
    const [first = '', ...under] = linesOf(block, depth + 1);
    return [`${'  '.repeat(depth)}- ${first}`, ...under.map((line) => (/^\s*- /.test(line) ? line : `${'  '.repeat(depth + 1)}${line}`))];
  }
  if (block.tagName === 'UL' || block.tagName === 'OL') return depth === 0 ? ['', ...linesOf(block, depth), ''] : linesOf(block, depth);
  const level = /^H([1-6])$/.exec(block.tagName)?.[1];
  const lines = linesOf(block, depth);
  return level === undefined ? ['', ...lines, ''] : ['', `${'#'.repeat(Number(level))} ${lines.join(' ')}`, ''];
}
