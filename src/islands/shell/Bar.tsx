import Check from 'lucide-react/icons/check';
import CircleHelp from 'lucide-react/icons/circle-question-mark';
import { useState } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger, Popover, Separator } from 'react-aria-components';
import type { AnswerOf } from '../../contract/contract.ts';
import { signOut, type getMe } from '../../contract/account-contracts.ts';
import { call } from '../ui/call.ts';
import { buttonClasses } from '../ui/Button.tsx';
import { Notices } from './Notices.tsx';
import { BrandClock } from './BrandClock.tsx';
import { guideOf } from './guide-of.ts';
import { places } from './places.ts';
import { QuickActions } from './QuickActions.tsx';
import { forgetUnsaved } from '../editor/unsaved-notes.ts';
import { UntilReady } from '../ui/UntilReady.tsx';
import { useDropGuard } from './use-drop-guard.ts';

/** Views of the interface, by their keys. */
export type View = 'today' | 'book' | 'facts' | 'voice' | 'templates' | 'pieces' | 'media' | 'lanes' | 'month' | 'week' | 'list' | 'profile' | 'rota' | 'rotation' | 'campaigns' | 'sign-off' | 'outbox' | 'by-hand' | 'channels' | 'networks' | 'history' | 'results' | 'replies' | 'links' | 'archive' | 'piece' | 'ideas' | 'exchange' | 'account';
type Theme = 'light' | 'dark' | 'system';

interface BarProps {
  readonly me: AnswerOf<typeof getMe>;
  readonly brand: string | null;
  readonly view: View | null;
  readonly theme: Theme;
}

/** A place with more views than these takes the room of the wordmark on usual screens. */
const MOST_WITH_ROOM = 4;

const item = 'flex cursor-pointer items-center justify-between gap-6 rounded-md px-2.5 py-1.5 text-sm outline-none data-[focused]:bg-sunk';
const trigger = 'flex h-8 items-center gap-2 rounded-md px-2 max-[28rem]:px-1 text-sm hover:bg-sunk data-[pressed]:bg-sunk';

export default function Bar({ me, brand, view, theme }: BarProps) {
  useDropGuard();
  const current = me.brands.find((each) => each.slug === brand) ?? me.brands[0];
  const isLong = places.some(({ views }) => views.length > MOST_WITH_ROOM && views.some(({ key }) => key === view));
  return (
    <header data-long={isLong || undefined} className="group/bar flex h-12 shrink-0 items-center gap-5 max-xl:gap-3 max-2xl:data-long:gap-3 border-b border-line bg-panel px-4 max-md:h-auto max-md:flex-wrap max-md:gap-x-3 max-md:gap-y-1 max-md:px-3 max-md:py-1.5">
      <a href={current ? `/b/${current.slug}/today` : '/'} aria-current={view === 'today' ? 'page' : undefined} className="flex items-center gap-2" aria-label="Confetti, Today">
        <img src="/mark.svg" alt="" className="size-6" />
        <span className="font-heading text-[17px] font-bold tracking-tight max-xl:sr-only max-2xl:group-data-long/bar:sr-only">Confetti</span>
      </a>
      {current && (
        <nav aria-label="Places" className="flex min-w-0 items-center gap-1 overflow-x-auto max-xl:gap-0 max-2xl:group-data-long/bar:gap-0 max-md:order-last max-md:w-full max-md:overflow-x-auto">
          {places.map((place) => (
            <PlaceLinks key={place.name} place={place} brand={current.slug} view={view} />
          ))}
        </nav>
      )}
      <div className="ml-auto flex shrink-0 items-center gap-2 max-xl:gap-1 max-2xl:group-data-long/bar:gap-1 max-md:shrink max-md:flex-wrap max-md:justify-end max-[28rem]:gap-0!">
        <UntilReady>
          {current && (
            <>
              <QuickActions brand={current} hasNewPiece={view !== 'pieces'} />
              <a href={guideOf(view)} aria-label="Guide to this view" title="Guide" className={buttonClasses('quiet', 'icon')}>
                <CircleHelp aria-hidden className="size-4" />
              </a>
              <MenuTrigger>
                <AriaButton className={trigger} aria-label={`Brand: ${current.name}. Change`}>
                  <span className="max-w-48 truncate font-medium max-xl:max-w-24 max-[28rem]:max-w-16 max-2xl:group-data-long/bar:max-w-24 max-[69rem]:group-data-long/bar:max-w-20">{current.name}</span>
                </AriaButton>
                <Popover className="shadow-float rounded-md border border-line bg-panel p-1">
                  <Menu aria-label="Brands" className="min-w-56 outline-none">
                    {me.brands.map((each) => (
                      <MenuItem key={each.slug} href={`/b/${each.slug}/make/pieces`} textValue={each.name} className={item}>
                        <span>{each.name}</span>
                        <span className="text-xs text-quiet">{each.role}</span>
                      </MenuItem>
                    ))}
                    <Separator className="my-1 h-px bg-line" />
                    <MenuItem href={`/exchange?brand=${current.slug}`} className={item}>
                      Export and import
                    </MenuItem>
                    {me.mayBeginBrands && (
                      <MenuItem href="/brands/new" className={item}>
                        New brand
                      </MenuItem>
                    )}
                  </Menu>
                </Popover>
              </MenuTrigger>
              <Notices brand={current.slug} zone={current.zone} />
              <BrandClock zone={current.zone} nowMs={me.nowMs} movable={me.demo && current.role !== 'viewer' && current.role !== 'reviewer'} />
            </>
          )}
          <PersonMenu name={me.person.name} theme={theme} />
        </UntilReady>
      </div>
    </header>
  );
}

function PlaceLinks({ place, brand, view }: { readonly place: (typeof places)[number]; readonly brand: string; readonly view: View | null }) {
  const shown = view === 'piece' ? 'pieces' : view;
  const isHere = place.views.some((each) => each.key === shown);
  if (!isHere) {
    return (
      <a href={`/b/${brand}/${place.views[0].path}`} className="shrink-0 rounded-md px-2.5 py-1 text-base text-quiet hover:bg-sunk hover:text-ink max-xl:px-2 max-2xl:group-data-long/bar:px-2 max-[69rem]:group-data-long/bar:px-1">
        {place.name}
      </a>
    );
  }
  return (
    <span className="flex shrink-0 items-center gap-0.5 rounded-md bg-sunk py-0.5 pr-0.5 pl-2.5 max-xl:gap-0 max-2xl:group-data-long/bar:gap-0">
      <span className="pr-1.5 font-heading text-base font-semibold">{place.name}</span>
      {place.views.map((each) => (
        <a
          key={each.key}
          href={`/b/${brand}/${each.path}`}
          aria-current={each.key === shown ? 'page' : undefined}
          className={`rounded-md px-2 py-0.5 text-sm max-xl:px-1.5 max-2xl:group-data-long/bar:px-1.5 max-[69rem]:group-data-long/bar:px-1 ${each.key === shown ? 'bg-panel font-semibold text-house' : 'text-quiet hover:text-ink'}`}
        >
          {each.name}
        </a>
      ))}
    </span>
  );
}

const themes: readonly { readonly key: Theme; readonly name: string }[] = [
  { key: 'system', name: 'As the system' },
  { key: 'light', name: 'Light' },
  { key: 'dark', name: 'Dark' },
];

function PersonMenu({ name, theme }: { readonly name: string; readonly theme: Theme }) {
  const [chosen, setChosen] = useState<string>(theme);
  const act = async (key: string): Promise<void> => {
    if (key === 'sign-out') {
      await call(signOut);
      forgetUnsaved();
      location.assign('/sign-in');
      return;
    }
    setChosen(key);
    document.documentElement.dataset['theme'] = key;
    document.cookie = `confetti_theme=${key}; Path=/; Max-Age=31536000; SameSite=Lax`;
  };
  const initials = name.split(/[\s-]+/).map((word) => word[0]).slice(0, 2).join('');
  return (
    <MenuTrigger>
      <AriaButton aria-label={`${name}: account and look`} className="grid size-8 place-items-center rounded-md border border-line text-xs font-semibold hover:border-edge">
        {initials}
      </AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-1" placement="bottom end">
        <p className="px-2.5 pt-1.5 pb-1 text-sm font-semibold">{name}</p>
        <Menu aria-label="Account and look" className="min-w-52 outline-none" onAction={(key) => void act(String(key))} selectionMode="none">
          <MenuItem href="/account" className={item}>
            Access tokens
          </MenuItem>
          <Separator className="my-1 h-px bg-line" />
          {themes.map((each) => (
            <MenuItem key={each.key} id={each.key} className={item} textValue={each.name}>
              <span>{each.name}</span>
              {each.key === chosen && <Check aria-hidden className="size-4" />}
            </MenuItem>
          ))}
          <Separator className="my-1 h-px bg-line" />
          <MenuItem id="sign-out" className={item}>
            Sign out
          </MenuItem>
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
