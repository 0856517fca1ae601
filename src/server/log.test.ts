import { describe, expect, it } from 'vitest';
import { openLog } from './log.ts';

function logged(write: (log: ReturnType<typeof openLog>) => void): Record<string, unknown> {
  const lines: string[] = [];
  write(openLog('info', { write: (line: string) => void lines.push(line) }));
  return JSON.parse(lines[0] ?? '{}') as Record<string, unknown>;
}

describe('the log', () => {
  it.each(['err', 'error'])('writes an error given as `%s` whole, with its cause', (key) => {
    const error = new Error('the database is locked', { cause: new Error('busy') });
    const line = logged((log) => log.error({ [key]: error, requestId: 'r1' }, 'a request failed'));
    expect(line).toMatchObject({ msg: 'a request failed', requestId: 'r1', [key]: { type: 'Error', message: 'the database is locked', cause: { message: 'busy' } } });
    expect((line[key] as { stack: string }).stack).toContain('log.test.ts');
  });

  it('hides secrets', () => {
    expect(JSON.stringify(logged((log) => log.info({ token: 'cft_abc', body: { password: 'sand' } }, 'x')))).not.toMatch(/cft_abc|sand/);
  });
});
