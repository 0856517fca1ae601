import { castDraft } from 'immer';
import ListOrdered from 'lucide-react/icons/list-ordered';
import { nanoid } from 'nanoid';
import { useDeferredValue, useMemo, useState } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { draftSlides } from '../../../core/piece/draft-slides.ts';
import { readPoints } from '../../../core/piece/read-points.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { scrimClasses } from '../../ui/scrim-classes.ts';
import type { ContactProps } from '../view-props.ts';
import { textOfHtml } from './text-of-html.ts';

/** A list, Markdown, a table or an article becomes slides; what it becomes is shown before. */
export function SlidesFromText({ piece, template, store, onChosen }: ContactProps) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const given = useDeferredValue(text);
  const read = useMemo(() => readPoints(given), [given]);
  const make = (): void => {
    const slides = draftSlides(template, piece.frames, read, () => nanoid(8));
    store.change('from-text', (draft) => void (draft.frames = castDraft(slides)));
    onChosen(new Set(), slides[0].id);
    setOpen(false);
    setText('');
  };
  const replaced = piece.frames.length > 1;
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <ListOrdered aria-hidden className="size-4" />
        From a text
      </Button>
      <ModalOverlay isOpen={open} isDismissable onOpenChange={setOpen} className={`${scrimClasses} md:p-8`}>
        <Modal className="shadow-float flex max-h-full w-full max-w-4xl flex-col rounded-md border border-line bg-panel">
          <Dialog className="flex min-h-0 flex-col outline-none" aria-label="Slides from a text">
            <div className="border-b border-line px-4 py-3">
              <Heading slot="title" className="text-base font-semibold">
                Slides from a text
              </Heading>
              <p className="text-sm text-quiet">Paste a list, Markdown, a table (CSV) or an article. Each point becomes a slide.</p>
            </div>
            {/* In a low or a narrow window what it becomes stands below the text, and both scroll. */}
            <div className="grid min-h-0 grid-cols-2 overflow-auto max-md:grid-cols-1">
              <div className="border-line p-4 max-md:border-b md:border-r">
                <textarea
                  aria-label="The text"
                  rows={16}
                  value={text}
                  onChange={(event) => setText(event.target.value)}
                  onPaste={(event) => {
                    const pasted = textOfHtml(event.clipboardData.getData('text/html'));
                    if (pasted === null) return;
                    event.preventDefault();
                    const { selectionStart, selectionEnd } = event.currentTarget;
                    setText(text.slice(0, selectionStart) + pasted + text.slice(selectionEnd));
                  }}
                  placeholder={'Three things to bring\n\n1. A warm coat: evenings are cool\n2. Good company'} className={`${inputClasses} h-full min-h-72 resize-none`}
                />
              </div>
              <div className="overflow-auto p-4 md:max-h-[26rem]" aria-live="polite">
                {text.trim() === '' ? (
                  <p className="text-sm text-quiet">What it becomes shows here.</p>
                ) : (
                  <>
                    {read.title !== '' && <p className="mb-2 text-sm font-semibold">Cover: {read.title}</p>}
                    <ol className="space-y-1.5 text-sm">
                      {read.points.map(({ heading, text: more }, index) => (
                        <li key={`${index}${heading}`} className="flex gap-2">
                          <span className="w-5 shrink-0 text-right text-quiet tabular-nums">{index + 1}</span>
                          <span className="min-w-0">
                            <span className="font-medium">{heading}</span>
                            {more !== '' && <span className="block text-quiet">{more}</span>}
                          </span>
                        </li>
                      ))}
                    </ol>
                    {read.notes.map((note) => (
                      <p key={note} className="mt-2 text-xs font-medium text-marigold-ink">
                        {note}
                      </p>
                    ))}
                  </>
                )}
              </div>
            </div>
            <div className="flex items-center justify-end gap-2 border-t border-line px-4 py-3">
              {replaced && <p className="mr-auto text-xs text-quiet">Cover and closing card stay; the slides between them are replaced. Undo brings them back.</p>}
              <Button onClick={() => setOpen(false)}>Close</Button>
              <Button look="primary" disabled={read.points.length === 0} onClick={make}>
                Make {read.points.length} {read.points.length === 1 ? 'slide' : 'slides'}
              </Button>
            </div>
          </Dialog>
        </Modal>
      </ModalOverlay>
    </>
  );
}
