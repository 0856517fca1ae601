import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ValidationError } from 'yup';
import type { AnswerOf } from '../../../contract/contract.ts';
import { changeNetworkSheet, listNetworkSheets, removeNetworkSheet } from '../../../contract/network-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { networkSheetSchema, type NetworkSheet } from '../../../core/network/network-sheet.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { FilePick } from '../../ui/FilePick.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { saveTextFile } from '../../ui/save-file.ts';
import { toast } from '../../ui/toast.tsx';
import { Failing } from './Failing.tsx';
import { SheetFields } from './SheetFields.tsx';

interface NetworksProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
}

type Listed = AnswerOf<typeof listNetworkSheets>['sheets'][number];
export type Check = AnswerOf<typeof changeNetworkSheet>;

export default function NetworksView(props: NetworksProps) {
  return (
    <Queries>
      <Networks {...props} />
    </Queries>
  );
}

function Networks({ brand }: NetworksProps) {
  const found = useQuery({ queryKey: ['network-sheets', brand.slug], queryFn: () => call(listNetworkSheets, { params: { brand: brand.slug } }) });
  const [chosen, setChosen] = useState<string | null>(null);
  const [imported, setImported] = useState<NetworkSheet | null>(null);
  const sheets = found.data?.sheets ?? [];
  const current = sheets.find(({ sheet }) => sheet.key === (chosen ?? sheets[0]?.sheet.key)) ?? null;
  const mayChange = roleMay(brand.role, 'brand');
  const read = async (file: File): Promise<void> => {
    try {
      const sheet: NetworkSheet = networkSheetSchema.validateSync(JSON.parse(await file.text()), { strict: true });
      setImported(sheet);
      setChosen(sheet.key);
    } catch (error) {
      const what = error instanceof ValidationError ? `${error.path ?? 'The sheet'}: ${error.message}` : 'It is not valid JSON.';
      toast('problem', `${file.name} is no network sheet. ${what} docs/network-sheets.md describes sheets.`);
    }
  };
  const shown = imported && imported.key === chosen ? { sheet: imported, isChanged: true, ships: false, channels: 0, isImported: true } : current;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[15rem_minmax(0,1fr)] max-md:block max-md:overflow-auto">
      <aside className="overflow-auto border-r border-line bg-panel py-4 max-md:border-r-0 max-md:border-b">
        <h1 className="px-4 pb-2 text-base font-semibold">Network sheets</h1>
        <ul>
          {sheets.map(({ sheet, isChanged, channels }) => (
            <li key={sheet.key}>
              <button type="button" aria-current={sheet.key === shown?.sheet.key ? 'true' : undefined} onClick={() => setChosen(sheet.key)} className={`flex w-full items-center gap-2.5 px-4 py-2 text-left text-sm ${sheet.key === shown?.sheet.key ? 'bg-sunk shadow-[inset_3px_0_0_var(--c-house)]' : 'hover:bg-sunk'}`}>
                <ChannelBadge badge={sheet.badge} />
                <span className="min-w-0 flex-1">
                  <span className="block font-medium">{sheet.name}</span>
                  <span className="block text-xs text-quiet">
                    {channels === 0 ? 'No channel' : `${channels} ${channels === 1 ? 'channel' : 'channels'}`}
                    {isChanged && ', changed'}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ul>
        {mayChange && (
          <div className="px-4 pt-3">
            <FilePick accept=".json,application/json" onFiles={([file]) => void (file && read(file))}>
              Import a sheet
            </FilePick>
          </div>
        )}
      </aside>
      {found.isError && <p className="p-6 text-coral-ink">{found.error.message}</p>}
      {shown && <SheetPane key={`${shown.sheet.key}${'isImported' in shown}`} brand={brand} listed={shown} isImported={'isImported' in shown} mayChange={mayChange} onKept={() => setImported(null)} />}
    </main>
  );
}

interface SheetPaneProps extends NetworksProps {
  readonly listed: Listed;
  readonly isImported: boolean;
  readonly mayChange: boolean;
  readonly onKept: () => void;
}

/** One sheet: seen, changed field by field, held against what is scheduled, kept, exported. */
function SheetPane({ brand, listed, isImported, mayChange, onKept }: SheetPaneProps) {
  const client = useQueryClient();
  const params = { brand: brand.slug };
  const [sheet, setSheet] = useState<NetworkSheet>(listed.sheet);
  const [check, setCheck] = useState<Check | null>(null);
  useEffect(() => setSheet(listed.sheet), [listed.sheet]);
  const hasChanged = isImported || JSON.stringify(sheet) !== JSON.stringify(listed.sheet);
  const send = useMutation({
    mutationFn: (keep: boolean) => call(changeNetworkSheet, { params, body: { sheet, keep } }),
    onSuccess: (answer) => {
      setCheck(answer);
      if (!answer.isKept) return;
      toast('done', `The sheet of ${sheet.name} is kept. Posts that are scheduled keep the rules that they were scheduled with.`);
      void client.invalidateQueries({ queryKey: ['network-sheets', brand.slug] });
      onKept();
    },
  });
  const back = useMutation({
    mutationFn: () => call(removeNetworkSheet, { params: { ...params, network: sheet.key } }),
    onSuccess: () => {
      toast('done', listed.ships ? 'The sheet that ships holds again.' : 'The sheet is removed.');
      return client.invalidateQueries({ queryKey: ['network-sheets', brand.slug] });
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <section aria-label={sheet.name} className="overflow-auto px-6 py-5 max-md:px-4">
      <div className="mb-4 flex flex-wrap items-center gap-2">
        <ChannelBadge badge={sheet.badge} size={26} />
        <h2 className="mr-auto text-xl font-semibold">{sheet.name}</h2>
        <Button onClick={() => saveTextFile(`${sheet.key}.json`, `${JSON.stringify(sheet, null, 2)}\n`, 'application/json')}>Export</Button>
        {mayChange && listed.isChanged && !isImported && (
          <ConfirmButton label={listed.ships ? 'Back to what ships' : 'Remove'} title={listed.ships ? 'Back to the sheet that ships' : 'Remove the sheet'} keepLabel="Keep mine" confirmLabel={listed.ships ? 'Go back' : 'Remove'} confirmLook="stop" onConfirm={() => back.mutate()}>
            <p className="text-sm">{listed.ships ? 'Your changes of this sheet are gone then. Scheduled posts stay as they are.' : 'This sheet is gone then. Export it first if you want it again.'}</p>
          </ConfirmButton>
        )}
        {mayChange && (
          <Button disabled={!hasChanged || send.isPending} onClick={() => send.mutate(false)}>
            Check what is scheduled
          </Button>
        )}
        {mayChange && (
          <Button look="primary" disabled={!hasChanged || send.isPending} onClick={() => send.mutate(true)}>
            Save
          </Button>
        )}
      </div>
      {isImported && <p className="mb-3 text-sm text-marigold-ink">Imported, and not kept yet: look at it, check what is scheduled, then save.</p>}
      {send.error && (
        <p role="alert" className="mb-3 text-sm text-coral-ink">
          {send.error.message}
        </p>
      )}
      {check && <Failing check={check} brand={brand} />}
      <SheetFields sheet={sheet} onChange={mayChange ? setSheet : null} />
    </section>
  );
}
