import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { getReportFile, keepReport, listReports, removeReport, sendReportNow } from '../../../contract/report-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { daysBetween } from '../../../core/time/day.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { reportPartNames, reportParts, type Report, type ReportPart } from '../../../core/results/report.ts';
import { addressOf, call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { FormActions } from '../../ui/FormActions.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import type { ResultsContext } from './results-context.ts';
import { periodOf } from './results-query.ts';

type Stored = AnswerOf<typeof listReports>['reports'][number];

const weekdays = [['1', 'Monday'], ['2', 'Tuesday'], ['3', 'Wednesday'], ['4', 'Thursday'], ['5', 'Friday'], ['6', 'Saturday'], ['7', 'Sunday']] as const;

/** Saved reports: as PDF, table or CSV, and by mail each week or month. */
export function ReportsButton({ context }: { readonly context: ResultsContext }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Reports</Button>
      {isOpen && <ReportsDialog context={context} onClose={() => setOpen(false)} />}
    </>
  );
}

function ReportsDialog({ context, onClose }: { readonly context: ResultsContext; readonly onClose: () => void }) {
  const { brand } = context;
  const client = useQueryClient();
  const [edited, setEdited] = useState<{ readonly id: string; readonly report: Report } | null>(null);
  const reports = useQuery({ queryKey: ['reports', brand.slug], queryFn: () => call(listReports, { params: { brand: brand.slug } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['reports', brand.slug] });
  const mayKeep = roleMay(brand.role, 'send');
  const begin = (): void => setEdited({ id: nanoid(12), report: newReport(context) });
  return (
    <ModalFrame title={edited ? (reports.data?.reports.some(({ id }) => id === edited.id) ? 'Change the report' : 'New report') : 'Reports'} width="wide" onClose={edited ? () => setEdited(null) : onClose}>
      {edited ? (
        <ReportForm
          context={context}
          edited={edited}
          onCancel={() => setEdited(null)}
          onKept={() => {
            setEdited(null);
            return refresh();
          }}
        />
      ) : (
        <>
          {reports.isError && <p className="text-sm text-coral-ink">{reports.error.message}</p>}
          {reports.data?.reports.length === 0 && <p className="max-w-xl text-sm text-quiet">A report is a set of these views under a name: as a PDF in the brand’s colours and type, as a table with every figure, by mail each week or month.</p>}
          <ul>{reports.data?.reports.map((stored) => <ReportLine key={stored.id} stored={stored} context={context} onEdit={() => setEdited({ id: stored.id, report: stored.report })} onChanged={refresh} />)}</ul>
          {mayKeep && (
            <p className="mt-4">
              <Button look="primary" onClick={begin}>
                New report
              </Button>
            </p>
          )}
        </>
      )}
    </ModalFrame>
  );
}

/** A report of what is looked at now. */
function newReport({ query, today, brand }: ResultsContext): Report {
  const { from, until } = periodOf(query, today);
  return { name: `${brand.name}: results`, days: Math.min(366, daysBetween(from, until) + 1), paper: 'a4', parts: [...reportParts], channels: query.channels?.split(',').filter((id) => id !== '') ?? [], themeId: query.theme ?? null, schedule: null };
}

function ReportLine({ stored, context, onEdit, onChanged }: { readonly stored: Stored; readonly context: ResultsContext; readonly onEdit: () => void; readonly onChanged: () => Promise<void> }) {
  const { brand } = context;
  const { id, report, nextMs, lastSentMs, problem } = stored;
  const params = { brand: brand.slug, report: id };
  const mayKeep = roleMay(brand.role, 'send');
  const onError = (error: Error): void => toast('problem', error.message);
  const remove = useMutation({ mutationFn: () => call(removeReport, { params }), onSuccess: onChanged, onError });
  const send = useMutation({
    mutationFn: () => call(sendReportNow, { params, body: {} }),
    onSuccess: ({ to }) => {
      toast('done', `Sent to ${to} ${to === 1 ? 'address' : 'addresses'}`);
      return onChanged();
    },
    onError,
  });
  return (
    <li className="border-b border-line py-3 text-sm">
      <div className="flex flex-wrap items-center gap-2">
        <span className="mr-auto min-w-0">
          <span className="font-semibold">{report.name}</span>
          <span className="block text-quiet">
            {report.days} days · {report.parts.length} parts{nextMs !== null && ` · goes out ${formatMoment(nextMs, brand.zone)} to ${report.schedule?.to.join(', ') ?? ''}`}
            {lastSentMs !== null && ` · sent last ${formatMoment(lastSentMs, brand.zone)}`}
          </span>
          {problem !== null && <span className="block text-coral-ink">{problem}</span>}
        </span>
        {(['pdf', 'xlsx', 'csv'] as const).map((form) => (
          <a key={form} href={addressOf(getReportFile, { ...params, form })} download className={buttonClasses('plain', 'small')}>
            {form.toUpperCase()}
          </a>
        ))}
        {mayKeep && report.schedule !== null && (
          <Button size="small" disabled={send.isPending} onClick={() => send.mutate()}>
            {send.isPending ? 'Sending…' : 'Send now'}
          </Button>
        )}
        {mayKeep && (
          <Button size="small" onClick={onEdit}>
            Change
          </Button>
        )}
        {mayKeep && (
          <ConfirmButton label="Remove" title="Remove the report" size="small" keepLabel="Keep" confirmLabel="Remove" confirmLook="stop" onConfirm={() => remove.mutate()}>
            Remove “{report.name}”? It goes out no more.
          </ConfirmButton>
        )}
      </div>
    </li>
  );
}

function ReportForm({ context, edited, onCancel, onKept }: { readonly context: ResultsContext; readonly edited: { readonly id: string; readonly report: Report }; readonly onCancel: () => void; readonly onKept: () => Promise<void> }) {
  const { brand, facets } = context;
  const [report, setReport] = useState(edited.report);
  const [days, setDays] = useState(String(report.days));
  const [to, setTo] = useState(report.schedule?.to.join(', ') ?? '');
  const change = (next: Partial<Report>): void => setReport((now) => ({ ...now, ...next }));
  const { schedule } = report;
  const keep = useMutation({
    mutationFn: () => call(keepReport, { params: { brand: brand.slug, report: edited.id }, body: { ...report, days: Number(days), schedule: schedule && { ...schedule, to: to.split(/[\s,;]+/).filter((address) => address !== '') } } }),
    onSuccess: onKept,
    onError: (error) => toast('problem', error.message),
  });
  const togglePart = (part: ReportPart, isOn: boolean): void => change({ parts: reportParts.filter((each) => (each === part ? isOn : report.parts.includes(each))) });
  return (
    <form
      className="grid gap-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <div className="grid grid-cols-[minmax(0,1fr)_8rem_10rem] gap-3 max-sm:grid-cols-1">
        <label className="block">
          <span className="mb-1 block font-semibold">Name</span>
          <input value={report.name} maxLength={80} required onChange={(event) => change({ name: event.target.value })} className={inputClasses} />
        </label>
        <label className="block">
          <span className="mb-1 block font-semibold">Days</span>
          <input type="number" min={1} max={366} required value={days} onChange={(event) => setDays(event.target.value)} className={inputClasses} />
        </label>
        <SelectField label="Paper" value={report.paper} options={[['a4', 'A4 upright'], ['wide', 'Screen, 16:9']]} onChange={(paper) => change({ paper: paper === 'wide' ? 'wide' : 'a4' })} />
      </div>
      <fieldset>
        <legend className="mb-1 font-semibold">Parts</legend>
        <div className="grid grid-cols-4 gap-1 max-sm:grid-cols-2">
          {reportParts.map((part) => (
            <label key={part} className="flex items-center gap-2">
              <input type="checkbox" checked={report.parts.includes(part)} onChange={(event) => togglePart(part, event.target.checked)} className="size-4 accent-house" />
              {reportPartNames[part]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-3">
        <SelectField label="Theme" none="All themes" value={report.themeId ?? ''} options={(facets?.themes ?? []).map(({ id, name }) => [id, name] as const)} onChange={(id) => change({ themeId: id === '' ? null : id })} />
        <p className="self-end pb-1.5 text-quiet">{report.channels.length === 0 ? 'All channels' : `${report.channels.length} ${report.channels.length === 1 ? 'channel' : 'channels'}, as filtered`}</p>
      </div>
      <fieldset>
        <legend className="mb-1 font-semibold">By mail</legend>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={schedule !== null} onChange={(event) => change({ schedule: event.target.checked ? { every: 'week', day: 1, time: '09:00', to: [] } : null })} className="size-4 accent-house" />
          It goes out by itself, as PDF and table
        </label>
        {schedule && (
          <div className="mt-2 grid grid-cols-[8rem_9rem_7rem_minmax(0,1fr)] items-end gap-3 max-sm:grid-cols-2">
            <SelectField label="Each" value={schedule.every} options={[['week', 'Week'], ['month', 'Month']]} onChange={(every) => change({ schedule: { ...schedule, every: every === 'month' ? 'month' : 'week', day: 1 } })} />
            {schedule.every === 'week' ? (
              <SelectField label="On" value={String(schedule.day)} options={weekdays} onChange={(day) => change({ schedule: { ...schedule, day: Number(day) } })} />
            ) : (
              <SelectField label="On the" value={String(schedule.day)} options={Array.from({ length: 31 }, (_, index) => [String(index + 1), `${index + 1}.`] as const)} onChange={(day) => change({ schedule: { ...schedule, day: Number(day) } })} />
            )}
            <label className="block">
              <span className="mb-1 block font-semibold">At</span>
              <input value={schedule.time} required pattern="([01][0-9]|2[0-3]):[0-5][0-9]" title="A time like 09:30" onChange={(event) => change({ schedule: { ...schedule, time: event.target.value } })} className={inputClasses} />
            </label>
            <label className="block">
              <span className="mb-1 block font-semibold">To</span>
              <input value={to} required placeholder="Mail addresses, with commas between them" onChange={(event) => setTo(event.target.value)} className={inputClasses} />
            </label>
          </div>
        )}
      </fieldset>
      <FormActions isBusy={keep.isPending} onCancel={onCancel} />
    </form>
  );
}
