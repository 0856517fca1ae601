import { useEffect, useState } from 'react';
import { languageNames, languages, type Language } from '../../core/words/language.ts';
import { Field, inputClasses } from '../ui/Field.tsx';

interface LanguageFieldProps {
  /** Null where it is none whose rules are known. */
  readonly language: Language | null;
  /** Null where nothing may be changed. */
  readonly onChange: ((language: Language | null) => void) | null;
}

/** What a brand writes in. */
export function LanguageField({ language, onChange }: LanguageFieldProps) {
  return (
    <Field label="Language" hint="What the brand writes in: lines break, and long words are parted, by its rules.">
      {({ id, describedBy }) => (
        <select id={id} aria-describedby={describedBy} value={language ?? ''} disabled={onChange === null} onChange={(event) => onChange?.(languages.find((each) => each === event.target.value) ?? null)} className={inputClasses}>
          <option value="">Another one</option>
          {languages.map((each) => (
            <option key={each} value={each}>
              {languageNames[each]}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

interface ZoneFieldProps {
  readonly zone: string;
  readonly hint?: string;
  /** Null where nothing may be changed. */
  readonly onChange: ((zone: string) => void) | null;
}

/** The zone of a brand's clock. */
export function ZoneField({ zone, hint, onChange }: ZoneFieldProps) {
  const [zones, setZones] = useState<readonly string[]>([]);
  // Which zones there are, only the browser knows: the server's page would say something else.
  useEffect(() => setZones(Intl.supportedValuesOf('timeZone')), []);
  return (
    <Field label="Time zone" hint={hint}>
      {({ id, describedBy }) => (
        <select id={id} aria-describedby={describedBy} value={zone} disabled={onChange === null} onChange={(event) => onChange?.(event.target.value)} className={inputClasses}>
          {[...new Set([zone, ...zones])].map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      )}
    </Field>
  );
}
