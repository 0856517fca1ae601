import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import { listTemplates } from '../../contract/template-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { getPiece } from '../../contract/piece-contracts.ts';
import type { Template } from '../../core/template/template.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { Queries } from '../ui/Queries.tsx';
import { ConflictNote } from './ConflictNote.tsx';
import { LookView } from './look/LookView.tsx';
import { PieceHeader, type ViewKey } from './PieceHeader.tsx';
import { httpSaver } from './piece-saver.ts';
import { PieceStore } from './piece-store.ts';
import { PreflightRail } from './PreflightRail.tsx';
import { TimesView } from './times/TimesView.tsx';
import { useCuts } from './use-cuts.ts';
import { WordsView } from './words/WordsView.tsx';

export type BrandData = AnswerOf<typeof getBrand>;
export type MediaItem = AnswerOf<typeof getPiece>['media'][number];

interface EditorProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: string };
  readonly pieceId: string;
  readonly nowMs: number;
}

export default function PieceEditor(props: EditorProps) {
  return (
    <Queries>
      <PieceLoader {...props} />
    </Queries>
  );
}

function PieceLoader({ brand, pieceId, nowMs }: EditorProps) {
  const piece = useQuery({
    queryKey: ['piece', brand.slug, pieceId],
    queryFn: () => call(getPiece, { params: { brand: brand.slug, piece: pieceId } }),
    // From here on the store knows better than the server.
    staleTime: Infinity,
  });
  const brandData = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const templates = useQuery({ queryKey: ['templates', brand.slug], queryFn: () => call(listTemplates, { params: { brand: brand.slug } }), staleTime: Infinity });
  const error = piece.error ?? brandData.error ?? templates.error;
  if (error) {
    return (
      <main className="grid flex-1 place-items-center">
        <div className="text-center">
          <p className="font-heading text-lg font-semibold">{error instanceof ApiProblem && error.status === 404 ? 'This piece is not here' : 'The piece could not be opened'}</p>
          <p className="mt-1 text-sm text-quiet">{error.message}</p>
        </div>
      </main>
    );
  }
  const all = templates.data?.templates;
  if (!piece.data || !brandData.data || !all?.some((each) => each.key === piece.data.document.template.key)) return <main className="flex-1" aria-busy="true" />;
  return <LoadedPiece brand={brand} brandData={brandData.data} templates={all} stored={piece.data} nowMs={nowMs} />;
}

interface LoadedProps {
  readonly brand: EditorProps['brand'];
  readonly brandData: BrandData;
  readonly templates: readonly Template[];
  readonly stored: AnswerOf<typeof getPiece>;
  readonly nowMs: number;
}

const sheetKeys: readonly ViewKey[] = ['look', 'words', 'times'];

function LoadedPiece({ brand, brandData, templates, stored, nowMs }: LoadedProps) {
  const client = useQueryClient();
  const [store] = useState(() => new PieceStore(stored, httpSaver(brand.slug, stored.id)));
  const state = useSyncExternalStore(store.subscribe, store.getState, store.getState);
  const [sheet, setSheet] = useState<ViewKey>(() => sheetKeys.find((key) => location.hash === `#${key}`) ?? 'look');
  const [media, setMedia] = useState<ReadonlyMap<string, MediaItem>>(() => new Map(stored.media.map((item) => [item.id, item])));
  const piece = state.history.document;
  const template = templates.find((each) => each.key === piece.template.key) ?? templates[0];
  if (!template) throw new RangeError('A piece cannot be edited without its template');
  const cuts = useCuts({ brandData, piece, template, media });

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      if (store.hasUnsaved()) event.preventDefault();
    };
    const keys = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) store.redo();
      else store.undo();
    };
    const leave = (): void => void store.flush();
    addEventListener('beforeunload', warn);
    addEventListener('keydown', keys);
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('beforeunload', warn);
      removeEventListener('keydown', keys);
      removeEventListener('pagehide', leave);
    };
  }, [store]);

  const choose = useCallback((next: ViewKey): void => {
    setSheet(next);
    history.replaceState(null, '', `#${next}`);
  }, []);
  const addMedia = (item: MediaItem): void => {
    setMedia((now) => new Map(now).set(item.id, item));
    void client.invalidateQueries({ queryKey: ['media', brand.slug] });
  };
  const readOnly = useMemo(() => !['owner', 'designer', 'writer'].includes(brand.role), [brand.role]);
  const shared = { brand, brandData, template, templates, store, piece, pieceId: stored.id, cuts, readOnly };
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <PieceHeader piece={piece} store={store} state={state} sheet={sheet} onSheet={choose} readOnly={readOnly} />
      {state.save.kind === 'conflict' && <ConflictNote store={store} mine={piece} theirs={state.save.theirs.document} template={template} brandData={brandData} />}
      <div className="flex min-h-0 flex-1">
        {sheet === 'look' && <LookView {...shared} media={media} onMedia={addMedia} />}
        {sheet === 'words' && <WordsView {...shared} />}
        {sheet === 'times' && <TimesView {...shared} nowMs={nowMs} />}
        <PreflightRail brand={brand} pieceId={stored.id} template={template} store={store} piece={piece} cuts={cuts} readOnly={readOnly} book={brandData.book} media={media} nowMs={nowMs} sheet={sheet} onSheet={choose} />
      </div>
    </main>
  );
}
