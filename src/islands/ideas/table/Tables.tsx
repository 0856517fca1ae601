import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { getTableForm, listTables, pasteTable, uploadTable } from '../../../contract/table-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { DropFiles } from '../../media/DropFiles.tsx';
import { addressOf, call, sendFile } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { FilePick } from '../../ui/FilePick.tsx';
import { toast } from '../../ui/toast.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import { TableView } from './TableView.tsx';

/** Tables of posts: one row a post, or a row a channel. */
export default function Tables({ context }: { readonly context: IdeasContext }) {
  const { query, change } = context;
  if (query.table !== undefined) return <TableView key={query.table} id={query.table} context={context} onClose={() => change({ table: undefined })} />;
  return <TableList context={context} />;
}

function TableList({ context: { brand, change } }: { readonly context: IdeasContext }) {
  const client = useQueryClient();
  const [text, setText] = useState('');
  const params = { brand: brand.slug };
  const tables = useQuery({ queryKey: ['post-tables', brand.slug], queryFn: () => call(listTables, { params }) });
  const taken = async ({ table, known, fresh }: AnswerOf<typeof uploadTable>): Promise<void> => {
    if (known > 0) toast('done', `${known} ${known === 1 ? 'row was' : 'rows were'} there before, ${fresh} ${fresh === 1 ? 'is' : 'are'} new. Nothing is doubled.`);
    await client.invalidateQueries({ queryKey: ['post-tables', brand.slug] });
    change({ table: table.id });
  };
  const onError = (error: Error): void => toast('problem', error.message);
  const upload = useMutation({ mutationFn: (file: File) => sendFile(uploadTable, params, { name: file.name }, file), onSuccess: taken, onError });
  const paste = useMutation({ mutationFn: () => call(pasteTable, { params, body: { name: 'Pasted table', text } }), onSuccess: taken, onError });
  const mayMake = roleMay(brand.role, 'make');
  return (
    <DropFiles as="div" isOpen={mayMake} onFiles={([file]) => file && upload.mutate(file)} className="relative grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_22rem] content-start gap-8 overflow-auto pb-5 max-lg:grid-cols-1">
      <section aria-label="Tables">
        {mayMake && (
          <div className="mb-5 rounded-md border border-dashed border-edge px-6 py-8 text-center">
            <p className="mb-1 text-base font-semibold">Drop a table here</p>
            <p className="mb-4 text-sm text-quiet">CSV or XLSX, one row a post. Columns are found by their names; every row is checked before anything is made.</p>
            <div className="flex flex-wrap justify-center gap-2">
              <FilePick look="primary" accept=".csv,.tsv,.txt,.xlsx,text/csv,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet" onFiles={([file]) => file && upload.mutate(file)}>
                {upload.isPending ? 'Reading…' : 'Choose a table'}
              </FilePick>
              <a href={addressOf(getTableForm, params, { as: 'xlsx' })} download className={buttonClasses('plain')}>
                An empty one (XLSX)
              </a>
              <a href={addressOf(getTableForm, params, { as: 'csv' })} download className={buttonClasses('plain')}>
                CSV
              </a>
            </div>
          </div>
        )}
        <ul>
          {tables.data?.items.map(({ id, name, rows, made, updatedMs }) => (
            <li key={id} className="border-b border-line">
              <button type="button" onClick={() => change({ table: id })} className="flex w-full items-baseline gap-3 py-2 text-left text-sm hover:text-house">
                <span className="min-w-0 flex-1 truncate font-semibold">{name}</span>
                <span className="text-quiet tabular-nums">
                  {rows} {rows === 1 ? 'row' : 'rows'}, {made} made
                </span>
                <time className="w-28 text-right text-quiet tabular-nums" suppressHydrationWarning>
                  {new Date(updatedMs).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: brand.zone })}
                </time>
              </button>
            </li>
          ))}
        </ul>
      </section>
      {mayMake && (
        <section aria-label="Paste a table">
          <h2 className="mb-1 text-sm font-semibold">Or paste from a spreadsheet</h2>
          <textarea aria-label="Pasted table" rows={10} value={text} placeholder={'Date\tChannels\tHeadline\tCaption'} onChange={(event) => setText(event.target.value)} className={`${inputClasses} font-mono text-xs`} />
          <Button className="mt-2" disabled={text.trim() === '' || paste.isPending} onClick={() => paste.mutate()}>
            Read it
          </Button>
        </section>
      )}
    </DropFiles>
  );
}
