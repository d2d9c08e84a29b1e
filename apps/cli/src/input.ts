import { readFileSync } from 'node:fs';
import { EXIT, Exit } from './exit';
import { InvalidDocument, type Project, parseProject, sentence } from '@insidia/core/running';

/** A project from a file, or from standard input when the name is "-". @throws Exit */
export function readProject(file: string): Project {
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new Exit(EXIT.unreadable, `${file} can't be read: ${(error as Error).message}`);
  }
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Exit(EXIT.invalid, `${file} is not JSON: ${(error as Error).message}`);
  }
  try {
    return parseProject(json);
  } catch (error) {
    if (error instanceof InvalidDocument) throw new Exit(EXIT.invalid, error.problems.map(sentence).join('\n'));
    throw error;
  }
}
