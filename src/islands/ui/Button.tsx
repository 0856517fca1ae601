import type { ButtonHTMLAttributes, ReactNode } from 'react';

const looks = {
  primary: 'bg-house text-house-ink border-house hover:brightness-110 disabled:bg-sunk disabled:text-quiet disabled:border-line',
  plain: 'bg-panel text-ink border-line hover:border-edge disabled:text-quiet',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-sunk disabled:text-quiet disabled:opacity-60',
  stop: 'bg-panel text-coral-ink border-line hover:border-coral disabled:text-quiet',
} as const;

/** A button in one of four weights; a view has at most one `primary`. */
export function Button({ look = 'plain', className = '', children, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { readonly look?: keyof typeof looks; readonly children: ReactNode }) {
  return (
    <button type="button" className={`${buttonClasses(look)} ${className}`} {...rest}>
      {children}
    </button>
  );
}

/** The same look for links that act like buttons. */
export function buttonClasses(look: keyof typeof looks): string {
  return `inline-flex h-8 shrink-0 items-center justify-center gap-1.5 whitespace-nowrap rounded-md border px-3 text-sm font-medium transition-colors duration-100 disabled:cursor-not-allowed ${looks[look]}`;
}
