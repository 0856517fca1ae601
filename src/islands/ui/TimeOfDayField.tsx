import { parseTime } from '@internationalized/date';
import { DateInput, DateSegment, I18nProvider, Label, TimeField } from 'react-aria-components';
import { INTERFACE_LOCALE, segmentClasses, segmentsClasses } from './DayField.tsx';

interface TimeOfDayFieldProps {
  readonly label: string;
  /** The label is read aloud and not shown. */
  readonly isBare?: boolean;
  /** `HH:MM`, of 24 hours; empty for none. */
  readonly time: string;
  readonly onChange: (time: string) => void;
  readonly className?: string;
}

/** A time on a clock of 24 hours, typed segment by segment. */
export function TimeOfDayField({ label, isBare = false, time, onChange, className = '' }: TimeOfDayFieldProps) {
  return (
    <I18nProvider locale={INTERFACE_LOCALE}>
      <TimeField value={time === '' ? null : parseTime(time)} onChange={(value) => onChange(value?.toString().slice(0, 5) ?? '')} hourCycle={24} granularity="minute" shouldForceLeadingZeros {...(isBare ? { 'aria-label': label } : {})}>
        {!isBare && <Label className="mb-1 block text-sm font-semibold">{label}</Label>}
        <DateInput className={`${segmentsClasses} ${className}`}>{(segment) => <DateSegment segment={segment} className={segmentClasses} />}</DateInput>
      </TimeField>
    </I18nProvider>
  );
}
