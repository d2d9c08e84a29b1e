/** What the tests of the command line call it with. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { runCommand as runCommandOf } from './main';

export const insidia = join(__dirname, '../bin/insidia.js');
export const demo = join(__dirname, '../../../demo/verdance.insidia.json');

export interface Called {
  status: number | null;
  stdout: string;
  stderr: string;
}

/** The built command line as a pipeline would call it. */
export function spawned(args: string[], input?: string): Called {
  const { status, stdout, stderr } = spawnSync(process.execPath, [insidia, ...args], { input, encoding: 'utf8' });
  return { status, stdout, stderr };
}

/** The same without a process for each call; what would come on standard input comes from a file. @param folder where that stands */
export async function called(folder: string, args: string[], input?: string): Promise<Called> {
  const { runCommand } = (await import(join(__dirname, '../dist/main.js'))) as { runCommand: typeof runCommandOf };
  const file = join(folder, 'input.json');
  if (input !== undefined) writeFileSync(file, input);
  let stdout = '';
  let stderr = '';
  const status = await runCommand(
    ['node', 'insidia', ...args.map((arg) => (arg === '-' ? file : arg))],
    (text) => (stdout += text),
    (text) => (stderr += text),
    () => undefined,
  );
  return { status, stdout, stderr };
}
