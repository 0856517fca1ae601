import { useState, type ButtonHTMLAttributes, type FocusEvent, type MouseEvent, type ReactNode, type Ref } from 'react';

const looks = {
  primary: 'bg-house text-house-ink border-house hover:brightness-110 off:bg-sunk off:text-quiet off:border-line',
  plain: 'bg-panel text-ink border-line hover:border-edge off:text-quiet',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-sunk off:text-quiet off:opacity-60',
  stop: 'bg-panel text-coral-ink border-line hover:border-coral off:text-quiet',
} as const;

const sizes = {
  usual: 'h-8 px-3 text-sm',
  small: 'h-6 px-2 text-xs',
  icon: 'h-8 px-2 text-sm',
} as const;

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: keyof typeof looks;
  readonly size?: keyof typeof sizes;
  readonly ref?: Ref<HTMLButtonElement>;
  readonly children: ReactNode;
}

/**
 * A button in one of four weights; a view has at most one `primary`. One that is switched off while it has the focus keeps it until
 * it goes elsewhere by itself: a browser would send who works by keyboard back to the top of the page.
 */
export function Button({ look = 'plain', size = 'usual', className = '', children, disabled = false, onFocus, onBlur, onClick, ...rest }: ButtonProps) {
  const [hasFocus, setFocus] = useState(false);
  const isHeld = disabled && hasFocus;
  const press = (event: MouseEvent<HTMLButtonElement>): void => (isHeld ? event.preventDefault() : onClick?.(event));
  const focused = (event: FocusEvent<HTMLButtonElement>, now: boolean): void => {
    setFocus(now);
    (now ? onFocus : onBlur)?.(event);
  };
  return (
    <button type="button" className={`${buttonClasses(look, size)} ${className}`} {...rest} disabled={disabled && !isHeld} aria-disabled={isHeld || rest['aria-disabled']} onClick={press} onFocus={(event) => focused(event, true)} onBlur={(event) => focused(event, false)}>
      {children}
    </button>
  );
}

/** The same look for links that act like buttons. */
export function buttonClasses(look: keyof typeof looks, size: keyof typeof sizes = 'usual'): string {
  return `inline-flex shrink-0 items-center justify-center gap-1.5 whitespace-nowrap rounded-md border font-medium ${sizes[size]} transition-colors duration-100 off:cursor-not-allowed ${looks[look]}`;
}
