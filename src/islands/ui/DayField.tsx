import { parseDate } from '@internationalized/date';
import CalendarDays from 'lucide-react/icons/calendar-days';
import ChevronLeft from 'lucide-react/icons/chevron-left';
import ChevronRight from 'lucide-react/icons/chevron-right';
import { Button as AriaButton, Calendar, CalendarCell, CalendarGrid, DateInput, DatePicker, DateSegment, Dialog, Group, Heading, I18nProvider, Label, Popover } from 'react-aria-components';
import { inputClasses } from './Field.tsx';
import { iconButtonClasses } from './icon-button';

/** The interface writes days and months as British English does, whatever the browser is set to. */
export const INTERFACE_LOCALE = 'en-GB';
export const segmentClasses = 'rounded-sm px-px tabular-nums outline-none focus:bg-house focus:text-house-ink data-[placeholder]:text-quiet data-[type=literal]:px-0.5';
export const segmentsClasses = `${inputClasses} flex items-center focus-within:border-house focus-within:ring-1 focus-within:ring-house`;

interface DayFieldProps {
  readonly label: string;
  /** The label is read aloud and not shown. */
  readonly isBare?: boolean;
  /** `YYYY-MM-DD`; empty for none. */
  readonly day: string;
  readonly onChange: (day: string) => void;
  readonly className?: string;
}

/** A day, typed segment by segment or picked from a calendar. */
export function DayField({ label, isBare = false, day, onChange, className = '' }: DayFieldProps) {
  return (
    <I18nProvider locale={INTERFACE_LOCALE}>
      <DatePicker value={day === '' ? null : parseDate(day)} onChange={(value) => onChange(value?.toString() ?? '')} shouldForceLeadingZeros {...(isBare ? { 'aria-label': label } : {})}>
        {!isBare && <Label className="mb-1 block text-sm font-semibold">{label}</Label>}
        <Group className={`${segmentsClasses} ${className}`}>
          <DateInput className="flex flex-1">{(segment) => <DateSegment segment={segment} className={segmentClasses} />}</DateInput>
          <AriaButton aria-label="Calendar" className={`${iconButtonClasses} -mr-1.5 ml-2`}>
            <CalendarDays aria-hidden className="size-4" />
          </AriaButton>
        </Group>
        <Popover className="shadow-float rounded-md border border-line bg-panel p-3">
          <Dialog aria-label={label} className="outline-none">
            <Calendar firstDayOfWeek="mon">
              <header className="mb-2 flex items-center justify-between">
                <AriaButton slot="previous" className={iconButtonClasses}>
                  <ChevronLeft aria-hidden className="size-4" />
                </AriaButton>
                <Heading className="text-sm font-semibold" />
                <AriaButton slot="next" className={iconButtonClasses}>
                  <ChevronRight aria-hidden className="size-4" />
                </AriaButton>
              </header>
              <CalendarGrid weekdayStyle="short" className="text-sm [&_th]:pb-1 [&_th]:text-xs [&_th]:font-medium [&_th]:text-quiet">
                {(date) => <CalendarCell date={date} className="grid size-8 place-items-center rounded-md tabular-nums outline-none hover:bg-sunk focus-visible:ring-1 focus-visible:ring-house data-[outside-month]:text-quiet data-[selected]:bg-house data-[selected]:text-house-ink" />}
              </CalendarGrid>
            </Calendar>
          </Dialog>
        </Popover>
      </DatePicker>
    </I18nProvider>
  );
}
