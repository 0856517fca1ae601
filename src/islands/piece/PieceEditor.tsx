import { useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { Tabs } from 'react-aria-components';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { getPiece } from '../../contract/piece-contracts.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { placeName } from '../../core/piece/place-name.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { ConflictNote } from '../editor/ConflictNote.tsx';
import { DocumentStore } from '../editor/document-store.ts';
import { notesInBrowser } from '../editor/unsaved-notes.ts';
import { useDocument } from '../editor/use-document.ts';
import type { MediaItem } from '../media/media-address.ts';
import type { BrandData } from '../preview/brand-content.ts';
import { useChanges, type PresentPerson } from '../shell/change-events.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { Queries } from '../ui/Queries.tsx';
import { toast } from '../ui/toast.tsx';
import { HistoryView } from './history/HistoryView.tsx';
import { LookView } from './look/LookView.tsx';
import { NewCuts } from './NewCuts.tsx';
import { PieceHeader, type ViewKey } from './PieceHeader.tsx';
import { pieceSaver } from './piece-store.ts';
import { OnceInTabs } from '../ui/OnceInTabs.tsx';
import { StillPanel } from '../ui/StillPanel.tsx';
import { TabPart, TabParts } from '../ui/tab-parts.tsx';
import { PreflightRail } from './PreflightRail.tsx';
import { templateQuery } from '../preview/template-query.ts';
import { TimesView } from './times/TimesView.tsx';
import { useCuts } from './use-cuts.ts';
import { WordsView } from './words/WordsView.tsx';

interface EditorProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly personId: string;
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

function PieceLoader(props: EditorProps) {
  const { brand, pieceId } = props;
  const piece = useQuery({
    queryKey: ['piece', brand.slug, pieceId],
    queryFn: () => call(getPiece, { params: { brand: brand.slug, piece: pieceId } }),
    // From here on the store knows better than the server.
    staleTime: Infinity,
  });
  const brandData = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const error = piece.error ?? brandData.error;
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
  if (!piece.data || !brandData.data) return <main className="flex-1" aria-busy="true" />;
  return <LoadedPiece {...props} brandData={brandData.data} stored={piece.data} />;
}

interface LoadedProps extends EditorProps {
  readonly brandData: BrandData;
  readonly stored: AnswerOf<typeof getPiece>;
}

/** The same map where it knows all of the items: another one would have every cut composed anew, after each save of one's own. */
function withItems(known: ReadonlyMap<string, MediaItem>, items: readonly MediaItem[]): ReadonlyMap<string, MediaItem> {
  const isKnown = items.every((item) => known.get(item.id)?.revision === item.revision);
  return isKnown ? known : new Map([...known, ...items.map((item) => [item.id, item] as const)]);
}

const writtenAt = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
const viewKeys: readonly ViewKey[] = ['look', 'words', 'times'];

function LoadedPiece({ brand, personId, brandData, stored, nowMs }: LoadedProps) {
  const client = useQueryClient();
  const [store] = useState(() => new DocumentStore<Piece>(stored, pieceSaver(brand.slug, stored.id), 'by-itself', notesInBrowser(personId, 'piece', stored.id)));
  const state = useDocument(store);
  const [view, setView] = useState<ViewKey>(() => viewKeys.find((key) => location.hash.split('/')[0] === `#${key}`) ?? 'look');
  const [isHistoryOpen, setHistoryOpen] = useState(false);
  const [media, setMedia] = useState<ReadonlyMap<string, MediaItem>>(() => new Map(stored.media.map((item) => [item.id, item])));
  const [present, setPresent] = useState<readonly PresentPerson[]>([]);
  const piece = state.history.document;
  // The template that came with the piece is at hand; one that somebody else chooses meanwhile is fetched.
  const first = stored.document.template.key === piece.template.key ? { document: stored.template } : undefined;
  const chosen = useQuery({ ...templateQuery(brand.slug, piece.template.key), ...(first ? { initialData: first } : {}) });
  const template = chosen.data?.document ?? stored.template;
  const cuts = useCuts({ store, brandData, piece, template, media });

  const addMedia = useCallback(
    (item: MediaItem): void => {
      setMedia((now) => new Map(now).set(item.id, item));
      void client.invalidateQueries({ queryKey: ['media', brand.slug] });
    },
    [client, brand.slug],
  );
  const takeIn = async (): Promise<void> => {
    const theirs = await call(getPiece, { params: { brand: brand.slug, piece: stored.id } });
    // Pictures first: a cut that shows one must find it.
    setMedia((now) => withItems(now, theirs.media));
    store.receive(theirs, theirs.changedBy);
  };
  useChanges(
    brand.slug,
    {
      // What cannot be fetched now comes with the next save.
      onChange: (kind, id) => void (kind === 'piece' && id === stored.id && takeIn().catch(() => undefined)),
      onPresent: setPresent,
    },
    stored.id,
  );
  const takeInRef = useRef(takeIn);
  takeInRef.current = takeIn;
  useEffect(() => {
    const writtenMs = store.takeUp(stored.changedBy);
    if (writtenMs === null) return;
    toast('done', `What you wrote on ${writtenAt.format(writtenMs)} and could not be saved is back in the piece.`);
    // A picture that was put in then comes with the piece once it is saved.
    void store.flush().then(() => takeInRef.current()).catch(() => undefined);
  }, [store, stored.changedBy]);
  const choose = useCallback((next: ViewKey): void => {
    setView(next);
    history.replaceState(null, '', `#${next}`);
  }, []);
  const readOnly = !roleMay(brand.role, 'make');
  const shared = { brand, brandData, template, store, piece, pieceId: stored.id, cuts, readOnly };
  const context = { piece, template, channels: brandData.channels, sheets: brandData.sheets };
  const others = present.filter((person) => person.personId !== personId);
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <TabParts
        value={{
          header: <PieceHeader piece={piece} store={store} state={state} readOnly={readOnly} others={others} isHistoryOpen={isHistoryOpen} onHistory={() => setHistoryOpen(!isHistoryOpen)} />,
          conflict:
            state.save.kind === 'conflict' ? (
              <ConflictNote by={state.save.by} conflicts={state.save.conflicts} nameOf={(path) => placeName(path, context)} onResolve={(decide) => void store.resolve(decide)} />
            ) : (
              !readOnly && !isHistoryOpen && <NewCuts pieceId={stored.id} piece={piece} brandData={brandData} store={store} />
            ),
          view: isHistoryOpen ? (
            <HistoryView {...shared} onMedia={addMedia} onClose={() => setHistoryOpen(false)} />
          ) : (
            <>
              {view === 'look' && <LookView {...shared} media={media} onMedia={addMedia} />}
              {view === 'words' && <WordsView {...shared} />}
              {view === 'times' && <TimesView {...shared} nowMs={nowMs} />}
            </>
          ),
          rail: !isHistoryOpen && (
            <PreflightRail brand={brand} pieceId={stored.id} template={template} store={store} piece={piece} cuts={cuts} readOnly={readOnly} book={brandData.book} media={media} nowMs={nowMs} view={view} onView={choose} />
          ),
        }}
      >
        <ViewTabs view={view} onView={choose} />
      </TabParts>
    </main>
  );
}

/** The tabs of a piece. Their content comes through `TabParts`, so that a key does not render the tabs again. */
const ViewTabs = memo(function ViewTabs({ view, onView }: { readonly view: ViewKey; readonly onView: (view: ViewKey) => void }) {
  return (
    <Tabs selectedKey={view} onSelectionChange={(key) => onView(key as ViewKey)} className="flex min-h-0 flex-1 flex-col">
      <TabPart name="header" />
      <OnceInTabs>
        <TabPart name="conflict" />
      </OnceInTabs>
      {/* On a phone what stands side by side stands one below the other. */}
      <div className="flex min-h-0 flex-1 max-md:flex-col max-md:overflow-y-auto">
        {/* The key makes a new panel for each view: a kept one would hold the id of the view before. */}
        <StillPanel key={view} id={view} className="flex min-h-0 min-w-0 flex-1 max-md:flex-none max-md:flex-col">
          <TabPart name="view" />
        </StillPanel>
        <OnceInTabs>
          <TabPart name="rail" />
        </OnceInTabs>
      </div>
    </Tabs>
  );
});
