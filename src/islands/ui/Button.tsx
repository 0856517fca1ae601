import type { ButtonHTMLAttributes, ReactNode } from 'react';

const looks = {
  primary: 'bg-house text-house-ink border-house hover:brightness-110 disabled:bg-sunk disabled:text-quiet disabled:border-line',
  plain: 'bg-panel text-ink border-line hover:border-edge disabled:text-quiet',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-sunk disabled:text-quiet disabled:opacity-60',
  stop: 'bg-panel text-coral-ink border-line hover:border-coral disabled:text-quiet',
} as const;

const sizes = {
  usual: 'h-8 px-3 text-sm',
  small: 'h-6 px-2 text-xs',
  icon: 'h-8 px-2 text-sm',
} as const;

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: keyof typeof looks;
  readonly size?: keyof typeof sizes;
  readonly children: ReactNode;
}

/** A button in one of four weights; a view has at most one `primary`. */
export function Button({ look = 'plain', size = 'usual', className = '', children, ...rest }: ButtonProps) {
  return (
    <button type="button" className={`${buttonClasses(look, size)} ${className}`} {...rest}>
      {children}
    </button>
  );
}

/** The same look for links that act like buttons. */
export function buttonClasses(look: keyof typeof looks, size: keyof typeof sizes = 'usual'): string {
  return `inline-flex shrink-0 items-center justify-center gap-1.5 whitespace-nowrap rounded-md border font-medium ${sizes[size]} transition-colors duration-100 disabled:cursor-not-allowed ${looks[look]}`;
}
