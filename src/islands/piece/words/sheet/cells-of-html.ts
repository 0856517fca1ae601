/** Most signs of HTML that are read from a clipboard. */
const MAX_HTML = 4_000_000;

/** The cells of the only table of pasted HTML, as spreadsheets write it; null where there is none, or words beside it. */
export function cellsOfHtml(html: string): readonly (readonly string[])[] | null {
  if (html.length > MAX_HTML || !/<t[dh][\s>]/iu.test(html)) return null;
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  const tables = body.querySelectorAll('table');
  const [table] = tables;
  if (!table || tables.length > 1) return null;
  const rows = [...table.rows].map((row) => [...row.cells].map(textOfCell));
  table.remove();
  for (const unseen of body.querySelectorAll('style, script')) unseen.remove();
  return rows.length > 0 && body.textContent.trim() === '' ? rows : null;
}

/** What a cell says, with its line ends; white space of the markup counts for nothing. */
function textOfCell(cell: HTMLElement): string {
  const lines: string[] = [''];
  const read = (node: Node): void => {
    if (node.nodeName === 'BR') lines.push('');
    else if (node.nodeType === Node.TEXT_NODE) lines.push(`${lines.pop() ?? ''}${node.textContent ?? ''}`);
    else for (const child of node.childNodes) read(child);
    if (/^(?:P|DIV|LI)$/u.test(node.nodeName) && node.nextSibling) lines.push('');
  };
  for (const node of cell.childNodes) read(node);
  return lines.map((line) => line.replace(/[\t\n\r ]+/gu, ' ').trim()).join('\n').trim();
}
