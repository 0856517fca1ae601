import { useMutation, useQueryClient } from '@tanstack/react-query';
import Ellipsis from 'lucide-react/icons/ellipsis';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover, SubmenuTrigger } from 'react-aria-components';
import { getMediaFile } from '../../../contract/media-contracts.ts';
import { getPieceThumbnail } from '../../../contract/piece-contracts.ts';
import { changeIdea, makePieceOfIdea, noteIdeaOnTheme } from '../../../contract/idea-contracts.ts';
import type { BodyOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { kindNames } from '../../../core/ideas/idea.ts';
import { addDays, daysBetween } from '../../../core/time/day.ts';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import { addressOf, call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { iconButtonClasses } from '../../ui/icon-button';
import { PictureWithFallback } from '../../ui/PictureWithFallback.tsx';
import { toast } from '../../ui/toast.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import { PlanIdea } from './PlanIdea.tsx';
import type { Idea } from './Shelf.tsx';

const item = 'flex cursor-pointer items-center gap-2 rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk';
const menu = 'shadow-float rounded-md border border-line bg-panel p-1';

/** One idea: what it is, where it comes from, why it fits, and what can be made of it. */
export function IdeaCard({ idea, context }: { readonly idea: Idea; readonly context: IdeasContext }) {
  const { brand, today, themes, people } = context;
  const client = useQueryClient();
  const [isPlanning, setPlanning] = useState(false);
  // One key a card: a second press makes one piece.
  const request = useRef(nanoid(16));
  const params = { brand: brand.slug, idea: idea.id };
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['ideas', brand.slug] });
  const onError = (error: Error): void => toast('problem', error.message);
  const make = useMutation({ mutationFn: () => call(makePieceOfIdea, { params, body: { request: request.current } }), onSuccess: ({ pieceId }) => location.assign(`/b/${brand.slug}/make/pieces/${pieceId}`), onError });
  const change = useMutation({
    mutationFn: ({ body }: { readonly body: BodyOf<typeof changeIdea>; readonly words: string; readonly undo?: BodyOf<typeof changeIdea> }) => call(changeIdea, { params, body }),
    onSuccess: async (_, { words, undo }) => {
      toast('done', words, undo && { label: 'Undo', run: () => void call(changeIdea, { params, body: undo }).then(refresh, onError) });
      await refresh();
    },
    onError,
  });
  const note = useMutation({
    mutationFn: (themeId: string) => call(noteIdeaOnTheme, { params, body: { themeId } }),
    onSuccess: async (_, themeId) => {
      toast('done', `Written into the notes of ${themes.get(themeId)?.name ?? 'the theme'}`);
      await refresh();
    },
    onError,
  });
  const theme = idea.themeId === null ? undefined : themes.get(idea.themeId);
  const lead = idea.day === null ? null : daysBetween(today, idea.day);
  const mayMake = roleMay(brand.role, 'make');
  const maySend = roleMay(brand.role, 'send');
  const picture = idea.mediaId !== null ? addressOf(getMediaFile, { brand: brand.slug, media: idea.mediaId }, { fit: 240 }) : idea.pieceId !== null ? addressOf(getPieceThumbnail, { brand: brand.slug, piece: idea.pieceId }) : null;
  const act = (key: string): void => {
    if (key === 'plan') setPlanning(true);
    else if (key === 'archive') change.mutate({ body: { event: 'archive' }, words: 'Archived', undo: { event: 'restore' } });
    else if (key === 'restore') change.mutate({ body: { event: 'restore' }, words: 'Back on the shelf' });
    else if (key.startsWith('until ')) change.mutate({ body: { event: 'snooze', until: key.slice(6) }, words: `Set aside until ${key.slice(6)}`, undo: { event: 'restore' } });
    else if (key.startsWith('give ')) change.mutate({ body: { assignedTo: key === 'give -' ? null : key.slice(5) }, words: key === 'give -' ? 'Given to nobody' : `Given to ${people.find(({ id }) => id === key.slice(5))?.name ?? ''}` });
    else if (key.startsWith('theme ')) note.mutate(key.slice(6));
  };
  return (
    <article className="flex h-full flex-col rounded-md border border-line bg-panel p-3" aria-label={idea.title}>
      <p className="mb-1.5 flex items-center gap-1.5 text-xs text-quiet">
        <span className="rounded-sm bg-sunk px-1.5 py-px font-semibold text-ink">{kindNames[idea.kind]}</span>
        <span className="min-w-0 flex-1 truncate">{idea.source}</span>
        {lead !== null && <span className={`shrink-0 tabular-nums ${lead <= 7 ? 'font-semibold text-marigold-ink' : ''}`}>{lead === 0 ? 'today' : lead === 1 ? 'tomorrow' : `in ${lead} days`}</span>}
        {theme && <ThemeTile theme={theme} />}
      </p>
      <div className="flex min-w-0 gap-3">
        <div className="min-w-0 flex-1">
          <h2 dir="auto" className="line-clamp-3 font-heading text-base leading-snug font-semibold [overflow-wrap:anywhere]">
            {idea.title}
          </h2>
          {idea.text !== '' && idea.text !== idea.title && (
            <p dir="auto" className="mt-1 line-clamp-3 text-sm text-quiet [overflow-wrap:anywhere]">
              {idea.text}
            </p>
          )}
        </div>
        {picture !== null && <PictureWithFallback src={picture} alt="" className="h-16 w-16 shrink-0 rounded-md border border-line object-cover" />}
      </div>
      {idea.link !== '' && (
        <a href={idea.link} rel="noreferrer noopener" target="_blank" className="mt-1 truncate text-xs text-house underline">
          {idea.link.replace(/^https?:\/\//u, '')}
        </a>
      )}
      {idea.why.length > 0 && <p className="mt-2 text-xs text-quiet">{idea.why.slice(0, 3).join(' ')}</p>}
      <div className="mt-auto pt-3">
        {idea.uses.length > 0 && (
          <p className="mb-2 text-xs text-mint-ink">
            ✓{' '}
            {idea.uses[0]?.kind === 'piece' ? (
              <a href={`/b/${brand.slug}/make/pieces/${idea.uses[0].subjectId}`} className="underline">
                {idea.uses[0].name || 'A piece'}
              </a>
            ) : idea.uses[0]?.kind === 'entry' ? (
              `In the plan, ${idea.uses[0].name.replace('T', ', ')}`
            ) : (
              `In the notes of ${idea.uses[0]?.name ?? ''}`
            )}
            {idea.uses.length > 1 ? ` and ${idea.uses.length - 1} more` : ''}
          </p>
        )}
        <div className="flex items-center gap-1.5">
          {mayMake && idea.state !== 'archived' && (
            <Button size="small" disabled={make.isPending} onClick={() => make.mutate()}>
              {idea.kind === 'saying' || (idea.kind === 'reply' && !idea.text.includes('?')) ? 'Make a quote' : idea.kind === 'revival' ? 'Make it again' : 'Make a piece'}
            </Button>
          )}
          {maySend && idea.state !== 'archived' && (
            <Button size="small" look="quiet" onClick={() => setPlanning(true)}>
              Plan it
            </Button>
          )}
          <span className="ml-auto truncate text-xs text-quiet">{idea.assignedTo === null ? '' : people.find(({ id }) => id === idea.assignedTo)?.name.split(' ')[0]}</span>
          {mayMake && (
            <MenuTrigger>
              <AriaButton aria-label={`More for ${idea.title}`} className={iconButtonClasses}>
                <Ellipsis aria-hidden className="size-4" />
              </AriaButton>
              <Popover className={menu} placement="bottom end">
                <Menu aria-label="More" className="min-w-48 outline-none" onAction={(key) => act(String(key))}>
                  {idea.state !== 'open' && (
                    <MenuItem id="restore" className={item}>
                      Take it back on the shelf
                    </MenuItem>
                  )}
                  {idea.state !== 'archived' && (
                    <SubmenuTrigger>
                      <MenuItem className={item}>Set it aside until ›</MenuItem>
                      <Popover className={menu}>
                        <Menu aria-label="Until" className="min-w-40 outline-none" onAction={(key) => act(String(key))}>
                          {([[3, 'In three days'], [7, 'In a week'], [28, 'In four weeks'], [91, 'In a quarter']] as const).map(([days, words]) => (
                            <MenuItem key={days} id={`until ${addDays(today, days)}`} className={item}>
                              {words}
                            </MenuItem>
                          ))}
                        </Menu>
                      </Popover>
                    </SubmenuTrigger>
                  )}
                  <SubmenuTrigger>
                    <MenuItem className={item}>Give it to ›</MenuItem>
                    <Popover className={menu}>
                      <Menu aria-label="Give it to" className="min-w-40 outline-none" onAction={(key) => act(String(key))}>
                        {people.map(({ id, name }) => (
                          <MenuItem key={id} id={`give ${id}`} className={item}>
                            {name}
                          </MenuItem>
                        ))}
                        <MenuItem id="give -" className={item}>
                          Nobody
                        </MenuItem>
                      </Menu>
                    </Popover>
                  </SubmenuTrigger>
                  {maySend && themes.size > 0 && (
                    <SubmenuTrigger>
                      <MenuItem className={item}>Note it on a theme ›</MenuItem>
                      <Popover className={menu}>
                        <Menu aria-label="Theme" className="min-w-40 outline-none" onAction={(key) => act(String(key))}>
                          {[...themes.values()].map((each) => (
                            <MenuItem key={each.id} id={`theme ${each.id}`} textValue={each.name} className={item}>
                              <ThemeTile theme={each} /> {each.name}
                            </MenuItem>
                          ))}
                        </Menu>
                      </Popover>
                    </SubmenuTrigger>
                  )}
                  {idea.conversationId !== null && (
                    <MenuItem href={`/b/${brand.slug}/learn/replies?c=${idea.conversationId}`} className={item}>
                      Open the conversation
                    </MenuItem>
                  )}
                  {idea.state !== 'archived' && (
                    <MenuItem id="archive" className={item}>
                      Archive
                    </MenuItem>
                  )}
                </Menu>
              </Popover>
            </MenuTrigger>
          )}
        </div>
      </div>
      {isPlanning && <PlanIdea idea={idea} context={context} onClose={() => setPlanning(false)} />}
    </article>
  );
}
