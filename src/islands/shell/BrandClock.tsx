import { useEffect } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { getMe, moveClock } from '../../contract/account-contracts.ts';
import { formatClock, formatMoment, zonePlace } from '../../core/time/wall-time.ts';
import { ApiProblem, call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { toast } from '../ui/toast.tsx';
import { announceNow, useNow } from '../ui/use-now.ts';

const MINUTE_MS = 60_000;
const steps = [
  { name: '15 minutes', ms: 15 * MINUTE_MS },
  { name: '1 hour', ms: 60 * MINUTE_MS },
  { name: '6 hours', ms: 360 * MINUTE_MS },
  { name: '1 day', ms: 1_440 * MINUTE_MS },
  { name: '1 week', ms: 10_080 * MINUTE_MS },
] as const;

/** The brand's own time, with its zone. In the demo it opens a way to move time forward. */
export function BrandClock({ zone, nowMs: serverNowMs, movable }: { readonly zone: string; readonly nowMs: number; readonly movable: boolean }) {
  const nowMs = useNow(serverNowMs);
  useEffect(() => {
    // A page that the browser has kept aside comes back with the time it was left at.
    const ask = (event: PageTransitionEvent): void => {
      if (event.persisted) void call(getMe).then((me) => announceNow(me.nowMs), () => undefined);
    };
    addEventListener('pageshow', ask);
    return () => removeEventListener('pageshow', ask);
  }, []);
  const reading = (
    <time suppressHydrationWarning dateTime={new Date(nowMs).toISOString()} className="text-sm tabular-nums">
      {formatClock(nowMs, zone)} <span className="text-quiet md:max-[69rem]:hidden max-[28rem]:hidden">{zonePlace(zone)}</span>
    </time>
  );
  if (!movable) return <span className="px-2">{reading}</span>;
  const move = async (forwardMs: number): Promise<void> => {
    try {
      announceNow((await call(moveClock, { body: { forwardMs } })).nowMs);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      toast('problem', error.message);
    }
  };
  return (
    <DialogTrigger>
      <AriaButton aria-label="Demo clock: move time forward" className="flex h-8 items-center rounded-md border border-dashed border-edge px-2 hover:bg-sunk max-[28rem]:px-1">
        {reading}
      </AriaButton>
      <Popover placement="bottom end" className="shadow-float rounded-md border border-line bg-panel">
        <Dialog className="w-72 p-3.5 outline-none" aria-label="Move the demo clock">
          <p className="text-sm font-semibold" suppressHydrationWarning>
            {formatMoment(nowMs, zone)}
          </p>
          <p className="mt-1 mb-2.5 text-xs text-quiet">This is the demo’s clock. Move it forward and watch what is scheduled go out. It cannot go back.</p>
          <div className="flex flex-wrap gap-1.5">
            {steps.map((step) => (
              <Button key={step.name} onClick={() => void move(step.ms)}>
                + {step.name}
              </Button>
            ))}
          </div>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
