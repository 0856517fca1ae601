import { useState } from 'react';
import { readHashtags } from '../../../core/words/read-hashtags.ts';
import { Field, inputClasses } from '../../ui/Field.tsx';

interface TypedTagsProps {
  readonly label: string;
  readonly hint: string;
  readonly tags: readonly string[];
  readonly readOnly: boolean;
  readonly onChange: (tags: string[]) => void;
}

const MAX_TAGS = 60;

/** Hashtags as they are typed, parted by spaces; what breaks them is left out as one types. */
export function TypedTags({ label, hint, tags, readOnly, onChange }: TypedTagsProps) {
  const [text, setText] = useState(tags.join(' '));
  // What is typed holds as long as it means the same; else somebody has changed the list elsewhere.
  const shown = readHashtags(text).join(' ') === tags.join(' ') ? text : tags.join(' ');
  return (
    <Field label={label} hint={hint}>
      {({ id, describedBy }) => (
        <input
          id={id}
          aria-describedby={describedBy}
          value={shown}
          readOnly={readOnly}
          onChange={(event) => {
            setText(event.target.value);
            onChange(readHashtags(event.target.value).slice(0, MAX_TAGS));
          }}
          className={inputClasses}
        />
      )}
    </Field>
  );
}
