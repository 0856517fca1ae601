import { castDraft } from 'immer';
import ArrowLeft from 'lucide-react/icons/arrow-left';
import ArrowRight from 'lucide-react/icons/arrow-right';
import Copy from 'lucide-react/icons/copy';
import Plus from 'lucide-react/icons/plus';
import Trash2 from 'lucide-react/icons/trash-2';
import { nanoid } from 'nanoid';
import { memo } from 'react';
import { DropIndicator, ListBox, ListBoxItem, useDragAndDrop } from 'react-aria-components';
import { duplicateSlides, insertSlides, moveSlides, removeSlides, stepSlides, type Slides } from '../../../core/piece/edit-slides.ts';
import { emptySlide } from '../../../core/piece/draft-slides.ts';
import { firstWords, type Piece } from '../../../core/piece/piece.ts';
import { slideKinds, slideOf } from '../../../core/template/slide-template.ts';
import { Button } from '../../ui/Button.tsx';
import type { ContactProps } from '../view-props.ts';
import { slideWords } from './slide-words.ts';

interface StripProps extends Pick<ContactProps, 'template' | 'store' | 'chosen' | 'onChosen' | 'readOnly'> {
  readonly frames: Piece['frames'];
  /** The slide at work. */
  readonly frameId: string;
  readonly columnPx: number;
  readonly headerPx: number;
  readonly gapPx: number;
}

/** The slides in their order: chosen, dragged or stepped, one or several at once. */
export const SlideStrip = memo(function SlideStrip(props: StripProps) {
  const { frames, template, store, frameId, chosen, onChosen, readOnly, columnPx, headerPx, gapPx } = props;
  const words = slideWords(template.kind);
  const working = chosen.size > 0 ? chosen : new Set([frameId]);
  // Every move is undone by itself; what has one label is undone together, as typing is.
  const change = (label: string, edit: (slides: Slides) => Slides): void => store.change(`${label}-${nanoid(6)}`, (draft) => void (draft.frames = castDraft(edit(store.getState().history.document.frames))));
  const { dragAndDropHooks } = useDragAndDrop({
    isDisabled: readOnly,
    // As wide as the gap it stands in, so that nothing moves while a slide is dragged.
    renderDropIndicator: (target) => <DropIndicator target={target} className="w-0.5 rounded-full data-[drop-target]:bg-house" style={{ marginInline: -(gapPx + 2) / 2 }} />,
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const at = frames.findIndex(({ id }) => id === target.key) + (target.dropPosition === 'after' ? 1 : 0);
      change('order', (slides) => moveSlides(slides, new Set([...keys].map(String)), slides[at]?.id ?? null));
    },
  });
  return (
    <div className="sticky top-0 z-20 bg-wall pb-2">
      {!readOnly && <StripActions {...props} working={working} change={change} />}
      <div className="group flex flex-wrap" style={{ paddingLeft: headerPx + gapPx }}>
        <ListBox
          aria-label={`${words.One}s in their order`}
          orientation="horizontal"
          selectionMode="multiple"
          selectionBehavior="replace"
          disallowEmptySelection
          selectedKeys={working}
          onSelectionChange={(keys) => {
            const ids = keys === 'all' ? new Set(frames.map(({ id }) => id)) : new Set([...keys].map(String));
            const added = [...ids].find((id) => !working.has(id)) ?? [...ids].at(-1) ?? null;
            onChosen(ids, added);
          }}
          dragAndDropHooks={dragAndDropHooks}
          items={frames}
          // An item that has not changed is drawn again only where these have: its number may have.
          dependencies={[frames, template]}
          className="flex"
          style={{ gap: gapPx }}
        >
          {(item) => {
            const number = frames.findIndex(({ id }) => id === item.id) + 1;
            const kind = item.slide === undefined ? words.cover : (slideOf(template, item.slide)?.name ?? '');
            const said = firstWords({ frames: [item] });
            return (
              <ListBoxItem id={item.id} textValue={`${words.One} ${number}, ${kind}, ${said}`} style={{ width: columnPx }} className="cursor-grab rounded-md border border-line bg-panel px-2 py-1.5 text-xs outline-0 data-[dragging]:opacity-50 data-[focus-visible]:outline-2 data-[focus-visible]:outline-offset-2 data-[focus-visible]:outline-house data-[selected]:border-house data-[selected]:bg-house-soft">
                <span className="flex items-baseline justify-between gap-1">
                  <span className="font-semibold tabular-nums">{number}</span>
                  <span className="truncate text-quiet">{kind}</span>
                </span>
                <span className="block truncate">{said || '…'}</span>
              </ListBoxItem>
            );
          }}
        </ListBox>
        {!readOnly && <p className="hidden w-full pt-1.5 text-xs text-quiet group-has-focus-visible:block">Enter picks the {words.one} up, arrows carry it, Enter puts it down, Escape leaves it where it was.</p>}
      </div>
    </div>
  );
});

interface ActionsProps extends StripProps {
  readonly working: ReadonlySet<string>;
  readonly change: (label: string, edit: (slides: Slides) => Slides) => void;
}

function StripActions({ frames, template, working, change, onChosen, frameId }: ActionsProps) {
  const words = slideWords(template.kind);
  const many = working.size > 1 ? `${working.size} ${words.one}s` : `the ${words.one}`;
  const insert = (key: string): void => {
    const kind = slideOf(template, key);
    if (!kind) return;
    const added = emptySlide(kind, nanoid(8));
    change('insert', (slides) => insertSlides(slides, [added], frameId));
    onChosen(new Set([added.id]), added.id);
  };
  return (
    <div className="mb-2 flex items-center gap-1.5">
      <Button size="small" aria-label={`Move ${many} to the left`} onClick={() => change('order', (slides) => stepSlides(slides, working, -1))}>
        <ArrowLeft aria-hidden className="size-3.5" />
      </Button>
      <Button size="small" aria-label={`Move ${many} to the right`} onClick={() => change('order', (slides) => stepSlides(slides, working, 1))}>
        <ArrowRight aria-hidden className="size-3.5" />
      </Button>
      <Button size="small" onClick={() => change('duplicate', (slides) => duplicateSlides(slides, working, () => nanoid(8)))}>
        <Copy aria-hidden className="size-3.5" />
        Duplicate
      </Button>
      <Button size="small" disabled={frames.length <= working.size} onClick={() => change('remove', (slides) => removeSlides(slides, working))}>
        <Trash2 aria-hidden className="size-3.5" />
        Remove
      </Button>
      {slideKinds(template).map((slide) => (
        <Button key={slide.key} size="small" look="quiet" onClick={() => insert(slide.key)}>
          <Plus aria-hidden className="size-3.5" />
          {slide.name}
        </Button>
      ))}
    </div>
  );
}
