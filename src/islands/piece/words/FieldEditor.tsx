import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import type { WordField } from '../../../core/network/network-sheet.ts';
import { readAudience, everyone, writeAudience, type Audience } from '../../../core/words/audience.ts';
import { completeAddress, fieldOf, type FieldKey } from '../../../core/words/fields.ts';
import { readPoll, USUAL_POLL_DAYS, writePoll, type Poll } from '../../../core/words/poll.ts';
import { inputClasses } from '../../ui/Field.tsx';
import { WordArea, type Suggest } from './WordArea.tsx';

export interface EditorProps {
  readonly label: string;
  readonly field: FieldKey;
  /** How the network rules the field; null in the shared row, and where it goes out within another field. */
  readonly rule: WordField | null;
  /** Names that can be chosen: of the network, or of the account. */
  readonly choices: readonly { readonly key: string; readonly name: string }[];
  readonly value: string;
  /** Shown in grey where the cell says nothing of its own. */
  readonly inherited: boolean;
  readonly readOnly: boolean;
  readonly rows: number;
  readonly suggest: Suggest | null;
  readonly onChange: (text: string) => void;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLElement>) => void;
  readonly autoFocus?: boolean;
  readonly area?: RefObject<HTMLTextAreaElement | null>;
}

/** The editor of a cell, by the kind of its field. */
export function FieldEditor(props: EditorProps) {
  const { kind } = fieldOf(props.field);
  switch (kind) {
    case 'choice':
      return <ChoiceEditor {...props} items={props.choices} />;
    case 'flag':
      return <ChoiceEditor {...props} items={[{ key: 'on', name: 'On' }, { key: 'off', name: 'Off' }]} />;
    case 'poll':
      return <PollEditor {...props} />;
    case 'audience':
      return <AudienceEditor {...props} />;
    case 'link':
    case 'slug':
    case 'place':
      return <LineEditor {...props} kind={kind} />;
    default:
      return <WordArea {...props} />;
  }
}

const stateClasses = (inherited: boolean): string => (inherited ? 'text-quiet italic' : '');

function useFocus<Element extends HTMLElement>(wanted: boolean | undefined): RefObject<Element | null> {
  const element = useRef<Element>(null);
  useEffect(() => {
    if (wanted) element.current?.focus();
  }, [wanted]);
  return element;
}

function ChoiceEditor({ label, items, value, inherited, readOnly, rule, onChange, onKeyDown, autoFocus }: EditorProps & { readonly items: EditorProps['choices'] }) {
  const select = useFocus<HTMLSelectElement>(autoFocus);
  const usual = items.find(({ key }) => key === rule?.usual);
  const isKnown = value === '' || items.some(({ key }) => key === value);
  return (
    <select ref={select} aria-label={label} value={value} disabled={readOnly} onChange={(event) => onChange(event.target.value)} onKeyDown={onKeyDown} className={`${inputClasses} ${stateClasses(inherited)}`}>
      <option value="">{usual ? `${usual.name} (as usual)` : 'Nothing'}</option>
      {items.map(({ key, name }) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
      {!isKnown && <option value={value}>{value}</option>}
    </select>
  );
}

const placeholders = { link: 'https://', slug: 'a-short-name', place: 'Where it is' } as const;

function LineEditor({ label, kind, value, inherited, readOnly, onChange, onKeyDown, autoFocus }: EditorProps & { readonly kind: 'link' | 'slug' | 'place' }) {
  const input = useFocus<HTMLInputElement>(autoFocus);
  return (
    <input
      ref={input}
      aria-label={label}
      type={kind === 'link' ? 'url' : 'text'}
      value={value}
      readOnly={readOnly}
      placeholder={placeholders[kind]}
      onChange={(event) => onChange(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={() => kind === 'link' && completeAddress(value) !== value && onChange(completeAddress(value))}
      className={`${inputClasses} ${stateClasses(inherited)}`}
    />
  );
}

const MIN_OPTIONS = 2;
const MAX_OPTIONS = 10;

/** A question, its answers, and the days that it is open. */
function PollEditor({ label, value, readOnly, inherited, rule, onChange, onKeyDown, autoFocus }: EditorProps) {
  const question = useFocus<HTMLInputElement>(autoFocus);
  const [typed, setTyped] = useState<Poll>(() => readPoll(value) ?? emptyPoll);
  // What is typed holds, with spaces at its ends, as long as it says the same as the cell; else the cell has been changed elsewhere.
  const poll = textOf(typed) === value ? typed : (readPoll(value) ?? emptyPoll);
  const most = rule?.poll?.maxOptions ?? MAX_OPTIONS;
  const lines = Math.min(most, Math.max(MIN_OPTIONS, poll.options.length + 1));
  const options = Array.from({ length: Math.max(lines, poll.options.length) }, (_, index) => poll.options[index] ?? '');
  const write = (next: Poll): void => {
    const kept = { ...next, options: next.options.slice(0, next.options.findLastIndex((option) => option !== '') + 1) };
    setTyped(kept);
    onChange(textOf(kept));
  };
  return (
    <fieldset disabled={readOnly} onKeyDown={onKeyDown} className={`space-y-1.5 ${stateClasses(inherited)}`}>
      <legend className="sr-only">{label}</legend>
      <input ref={question} aria-label={`${label}: question`} placeholder="Question" value={poll.question} onChange={(event) => write({ ...poll, question: event.target.value })} className={inputClasses} />
      {options.map((option, index) => (
        <input
          key={index}
          aria-label={`${label}: answer ${index + 1}`}
          placeholder={`Answer ${index + 1}`}
          value={option}
          onChange={(event) => write({ ...poll, options: options.map((each, at) => (at === index ? event.target.value : each)) })}
          className={inputClasses}
        />
      ))}
      <label className="flex items-center gap-2 text-xs text-quiet">
        Open for
        <input type="number" aria-label={`${label}: days`} min={1} max={rule?.poll?.maxDays ?? 30} value={poll.days} onChange={(event) => write({ ...poll, days: Number(event.target.value) || 1 })} className={`${inputClasses} max-w-16`} />
        days
      </label>
    </fieldset>
  );
}

const emptyPoll: Poll = { question: '', options: [], days: USUAL_POLL_DAYS };

/** A poll as its cell keeps it; without a word in it the cell is empty. */
function textOf(poll: Poll): string {
  return poll.question.trim() === '' && poll.options.every((option) => option.trim() === '') ? '' : writePoll(poll);
}

/** Countries, an age and languages, each as a list that is typed. */
function AudienceEditor({ label, value, readOnly, inherited, onChange, onKeyDown, autoFocus }: EditorProps) {
  const first = useFocus<HTMLInputElement>(autoFocus);
  const audience = readAudience(value) ?? everyone;
  const write = (next: Partial<Audience>): void => onChange(writeAudience({ ...audience, ...next }));
  const list = (text: string): readonly string[] => text.split(/[\s,]+/u).filter((part) => part !== '');
  return (
    <fieldset disabled={readOnly} onKeyDown={onKeyDown} className={`grid grid-cols-[5.5rem_1fr] items-center gap-x-2 gap-y-1.5 text-xs ${stateClasses(inherited)}`}>
      <legend className="sr-only">{label}</legend>
      <span className="text-quiet">Countries</span>
      <input ref={first} key={`countries ${value}`} aria-label={`${label}: countries`} placeholder="GB, IE" defaultValue={audience.countries.join(', ')} onBlur={(event) => write({ countries: list(event.target.value).filter((each) => /^[a-z]{2}$/iu.test(each)).map((each) => each.toUpperCase()) })} className={inputClasses} />
      <span className="text-quiet">From age</span>
      <input type="number" aria-label={`${label}: from age`} min={0} max={99} value={audience.fromAge ?? ''} onChange={(event) => write({ fromAge: event.target.value === '' ? null : Number(event.target.value) })} className={inputClasses} />
      <span className="text-quiet">Languages</span>
      <input key={`languages ${value}`} aria-label={`${label}: languages`} placeholder="en, de" defaultValue={audience.languages.join(', ')} onBlur={(event) => write({ languages: list(event.target.value).filter((each) => /^[a-z]{2,3}$/iu.test(each)).map((each) => each.toLowerCase()) })} className={inputClasses} />
    </fieldset>
  );
}
