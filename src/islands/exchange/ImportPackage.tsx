import Upload from 'lucide-react/icons/upload';
import { Button } from '../ui/Button.tsx';
import { FilePick } from '../ui/FilePick.tsx';
import { CameIn } from './CameIn.tsx';
import { kindCounts } from './package-words.ts';
import { usePackage, type PackageState } from './use-package.ts';

/** The import of a package: upload, check, import, result. */
export function ImportPackage({ packageId }: { readonly packageId: string | null }) {
  const incoming = usePackage(packageId);
  return (
    <section aria-labelledby="import-title">
      <h2 id="import-title" className="text-base font-semibold">
        Import
      </h2>
      <div className="mt-3 rounded-md border border-line bg-panel px-4 py-4 text-sm">
        <Step {...incoming} />
      </div>
      <p className="mt-3 text-xs text-quiet">What is here already stays as it is; a piece alone is brought up to date when the package has its newer state. A brand that is new here arrives on hold, so nothing goes out before you let it.</p>
    </section>
  );
}

function Step({ state, problem, send, start, drop, resume, hasFile, isSending, share }: ReturnType<typeof usePackage>) {
  if (state === null && !isSending) {
    return (
      <>
        {problem !== null && (
          <p role="alert" className="mb-3 text-coral-ink">
            {problem}
          </p>
        )}
        <p>
          Choose a ZIP that <em>Export</em> made. It is checked first; nothing is imported before you press Import.
        </p>
        <div className="mt-3">
          <FilePick accept=".zip,application/zip" onFiles={([file]) => file && send(file)}>
            <Upload aria-hidden className="size-4" />
            Choose a package
          </FilePick>
        </div>
      </>
    );
  }
  if (state === null || state.look === null) {
    return (
      <>
        <Progress label={isSending && problem === null ? 'Uploading' : 'The upload stopped'} share={share} />
        {problem !== null && (
          <p role="alert" className="mt-2 text-coral-ink">
            {problem}
          </p>
        )}
        <div className="mt-3 flex gap-2">
          {(!isSending || problem !== null) && (hasFile ? <Button onClick={() => resume()}>Resume</Button> : <FilePick accept=".zip,application/zip" onFiles={([file]) => resume(file)}>Choose it again to resume</FilePick>)}
          <Button onClick={drop}>Cancel</Button>
        </div>
      </>
    );
  }
  if (state.import !== null) return <Import state={state} drop={drop} start={start} />;
  if (state.look.state === 'failed' || state.look.state === 'cancelled') {
    return (
      <>
        <p className="font-medium">{state.name} cannot be imported</p>
        <p role="alert" className="mt-1 text-coral-ink">
          {state.look.problem ?? 'It could not be read.'}
        </p>
        <Button className="mt-3" onClick={drop}>
          Choose another
        </Button>
      </>
    );
  }
  if (state.found === null) {
    return (
      <>
        <Progress label="Checking" share={state.look.progress} />
        <Button className="mt-3" onClick={drop}>
          Cancel
        </Button>
      </>
    );
  }
  const { brands, madeMs } = state.found;
  const isPossible = brands.every(({ target }) => target.kind !== 'not yours');
  return (
    <>
      <p className="font-medium break-words">{state.name}</p>
      <p className="text-quiet">Made on {new Date(madeMs).toISOString().slice(0, 10)}</p>
      <ul className="mt-3 space-y-3">
        {brands.map(({ id, name, target, counts }) => (
          <li key={id}>
            <p className="font-medium">
              {name}
              <span className="ml-2 font-normal text-quiet">{target.kind === 'new' ? 'new here' : target.kind === 'here' ? 'here already' : ''}</span>
            </p>
            <p className="text-quiet">{kindCounts(counts)}</p>
            {target.kind === 'not yours' && <p className="text-coral-ink">{target.sentence}</p>}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex gap-2">
        <Button look="primary" disabled={!isPossible} onClick={start}>
          Import
        </Button>
        <Button onClick={drop}>Cancel</Button>
      </div>
      {problem !== null && (
        <p role="alert" className="mt-2 text-coral-ink">
          {problem}
        </p>
      )}
    </>
  );
}

function Import({ state, drop, start }: { readonly state: PackageState; readonly drop: () => void; readonly start: () => void }) {
  if (state.report) return <CameIn brands={state.report.brands} onAnother={drop} />;
  if (state.import?.state === 'failed' || state.import?.state === 'cancelled') {
    return (
      <>
        <p className="font-medium">Nothing was imported</p>
        <p role="alert" className="mt-1 text-coral-ink">
          {state.import.problem ?? 'The import was stopped.'}
        </p>
        <div className="mt-3 flex gap-2">
          <Button onClick={start}>Try again</Button>
          <Button onClick={drop}>Choose another</Button>
        </div>
      </>
    );
  }
  return (
    <>
      <Progress label="Importing" share={state.import?.progress ?? 0} />
      <p className="mt-2 text-quiet">You may leave this page; the import goes on.</p>
      <Button className="mt-3" onClick={drop}>
        Stop
      </Button>
    </>
  );
}

function Progress({ label, share }: { readonly label: string; readonly share: number }) {
  const percent = Math.round(share * 100);
  return (
    <div>
      <p className="flex justify-between">
        <span className="font-medium">{label}</span>
        <span className="text-quiet tabular-nums">{percent}%</span>
      </p>
      <div role="progressbar" aria-label={label} aria-valuenow={percent} aria-valuemin={0} aria-valuemax={100} className="mt-2 h-1.5 overflow-hidden rounded-full bg-sunk">
        <div className="h-full bg-house transition-[width]" style={{ width: `${percent}%` }} />
      </div>
    </div>
  );
}
