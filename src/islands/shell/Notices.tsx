import Bell from 'lucide-react/icons/bell';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { AnswerOf } from '../../contract/contract.ts';
import { keepReminders, listNotices, readNotices } from '../../contract/today-contracts.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { iconButtonClasses } from '../ui/icon-button';
import { toast } from '../ui/toast.tsx';

type Answer = AnswerOf<typeof listNotices>;

const LOOK_EVERY_MS = 60_000;
const minutes = [5, 15, 30, 60, 1_440] as const;

/** A person's notices and reminder settings: here, by mail, and as a notice of the browser while a page is open. */
export function Notices({ brand, zone }: { readonly brand: string; readonly zone: string }) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const known = useRef<ReadonlySet<string> | null>(null);
  const look = useCallback(async (): Promise<void> => {
    try {
      const next = await call(listNotices, { params: { brand } });
      const fresh = known.current === null ? [] : next.items.filter(({ id, isRead }) => !isRead && !known.current?.has(id));
      known.current = new Set(next.items.map(({ id }) => id));
      if ('Notification' in globalThis && Notification.permission === 'granted') for (const { id, sentence } of fresh) new Notification('Confetti', { body: sentence, tag: id });
      setAnswer(next);
    } catch (error) {
      // The next look comes in a minute; a failed one needs no message.
      if (!(error instanceof ApiProblem)) throw error;
    }
  }, [brand]);
  useEffect(() => {
    void look();
    const timer = setInterval(() => void (document.visibilityState === 'visible' && look()), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [look]);
  const unread = answer?.items.filter(({ isRead }) => !isRead).length ?? 0;
  const open = async (isOpen: boolean): Promise<void> => {
    if (!isOpen || unread === 0) return;
    await call(readNotices, { params: { brand }, body: {} }).catch(() => undefined);
    setAnswer((now) => now && { ...now, items: now.items.map((each) => ({ ...each, isRead: true })) });
  };
  return (
    <DialogTrigger onOpenChange={(isOpen) => void open(isOpen)}>
      <AriaButton aria-label={unread === 0 ? 'Notices' : `Notices, ${unread} new`} className={`${iconButtonClasses} relative`}>
        <Bell aria-hidden className="size-4" />
        {unread > 0 && <span className="absolute -top-0.5 -right-0.5 grid min-w-4 place-items-center rounded-full bg-house px-1 text-[10px] leading-4 font-bold text-house-ink tabular-nums">{unread}</span>}
      </AriaButton>
      <Popover placement="bottom end" className="shadow-float max-h-[80vh] w-80 max-w-[calc(100vw-1rem)] overflow-auto rounded-md border border-line bg-panel p-4">
        <Dialog aria-label="Notices" className="outline-none">
          <h2 className="text-base font-semibold">Notices</h2>
          {answer && answer.items.length === 0 && <p className="mt-1 text-sm text-quiet">Nothing was to tell yet.</p>}
          <ul className="mt-1 text-sm">
            {answer?.items.slice(0, 12).map(({ id, sentence, path, atMs }) => (
              <li key={id} className="border-b border-line py-1.5">
                <a href={path} className="block hover:underline">
                  {sentence}
                </a>
                <span className="text-xs text-quiet tabular-nums">{formatMoment(atMs, zone)}</span>
              </li>
            ))}
          </ul>
          {answer && <Reminders brand={brand} answer={answer} onKept={(reminders) => setAnswer({ ...answer, reminders })} />}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Reminders({ brand, answer: { reminders, hasMail }, onKept }: { readonly brand: string; readonly answer: Answer; readonly onKept: (reminders: Answer['reminders']) => void }) {
  const keep = async (part: Partial<Answer['reminders']>): Promise<void> => {
    try {
      onKept(await call(keepReminders, { params: { brand }, body: { ...reminders, ...part } }));
    } catch (error) {
      toast('problem', error instanceof Error ? error.message : 'It was not kept.');
    }
  };
  const isAsked = 'Notification' in globalThis && Notification.permission !== 'default';
  const box = (label: string, isChecked: boolean, onChange: (checked: boolean) => void) => (
    <label className="flex items-center gap-2 py-0.5">
      <input type="checkbox" checked={isChecked} onChange={(event) => onChange(event.target.checked)} className="size-4 accent-house" />
      {label}
    </label>
  );
  return (
    <fieldset className="mt-4 text-sm">
      <legend className="mb-1 font-semibold">Tell me</legend>
      {box('when a post failed', reminders.whenFailed, (whenFailed) => void keep({ whenFailed }))}
      {box('when a post is out', reminders.whenOut, (whenOut) => void keep({ whenOut }))}
      <label className="flex items-center gap-2 py-0.5">
        before a post
        <select aria-label="Before a post" value={reminders.beforeMin ?? ''} onChange={(event) => void keep({ beforeMin: event.target.value === '' ? null : Number(event.target.value) })} className="h-7 rounded-md border border-line bg-panel px-1">
          <option value="">never</option>
          {minutes.map((count) => (
            <option key={count} value={count}>
              {count < 60 ? `${count} minutes` : count === 60 ? 'an hour' : 'a day'}
            </option>
          ))}
        </select>
      </label>
      {hasMail && box('by mail as well', reminders.byMail, (byMail) => void keep({ byMail }))}
      {!isAsked && (
        <button type="button" onClick={() => void Notification.requestPermission()} className="mt-1 text-house underline">
          In the browser as well
        </button>
      )}
    </fieldset>
  );
}
