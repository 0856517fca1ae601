import TriangleAlert from 'lucide-react/icons/triangle-alert';
import { Button } from '../ui/Button.tsx';
import type { Upload, Uploads } from './use-uploads.ts';

function wording({ state }: Upload): string {
  switch (state.kind) {
    case 'waiting':
      return 'waits its turn';
    case 'sending':
      return `${Math.round(state.share * 100)}%`;
    case 'importing':
      return state.share > 0 ? `importing, ${Math.round(state.share * 100)}%` : 'importing';
    case 'broken':
      return `${state.sentence} ${Math.round(state.share * 100)}% has arrived.`;
    case 'failed':
      return state.sentence;
  }
}

/** Uploads under way and those that failed, each with a way out. */
export function UploadList({ uploads }: { readonly uploads: Uploads }) {
  if (uploads.list.length === 0) return null;
  return (
    <ul aria-label="Uploads" className="mb-4 border-t border-line">
      {uploads.list.map((upload) => {
        const failed = upload.state.kind === 'failed' || upload.state.kind === 'broken';
        const { state } = upload;
        const share = state.kind === 'sending' || state.kind === 'importing' ? state.share : 0;
        const canResume = state.kind === 'broken' || (state.kind === 'failed' && state.canRetry);
        return (
          <li key={upload.id} className="flex items-center gap-3 border-b border-line py-2 text-sm">
            {failed && <TriangleAlert aria-hidden className="size-4 shrink-0 text-coral-ink" />}
            <span className="max-w-56 shrink-0 truncate font-medium">{upload.file.name}</span>
            {failed ? (
              <span role="alert" className="text-coral-ink">
                {wording(upload)}
              </span>
            ) : (
              <>
                <progress aria-label={`Upload of ${upload.file.name}`} max={1} value={share} className="h-1.5 w-40 accent-house" />
                <span className="text-quiet tabular-nums">{wording(upload)}</span>
              </>
            )}
            {canResume && (
              <Button size="small" className="ml-auto" onClick={() => uploads.resume(upload.id)}>
                {state.kind === 'broken' ? 'Resume' : 'Retry'}
              </Button>
            )}
            <Button look="quiet" className={canResume ? '' : 'ml-auto'} onClick={() => uploads.drop(upload.id)}>
              {failed ? 'Remove' : 'Cancel'}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
