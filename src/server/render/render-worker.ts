import { readSettings } from '../settings.ts';
import { startEngines } from './engines.ts';
import { runRenderJob, type RenderJob, type RenderResult } from './render-cut.ts';

const engines = startEngines(readSettings(process.env));

/** A worker thread's one task: render a job. */
export default async function render(job: RenderJob): Promise<RenderResult> {
  return runRenderJob(job, await engines);
}
