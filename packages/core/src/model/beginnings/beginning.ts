/** What a new thing may begin as: a small pattern, whole and plain, that is changed from there. */
import { FORMAT, FORMAT_VERSION, type Project } from '../project';
import type { Unit } from '../unit';
import { parseProject } from '../validate';

export interface Beginning {
  id: string;
  /** What it does, in a few words: what is chosen. */
  called: string;
  /** In a sentence what it is made of. */
  about: string;
  /** What a thing that begins so is called until it is given a name. */
  name: string;
}

/** Parts of a unit as they are written in a file; what is not said is the format's default. */
export type Written = Record<string, unknown>;

/** A unit with everything said, read as a file's are. @throws InvalidDocument for what no unit may be */
export function wholeUnit(written: Written): Unit {
  const document = { format: FORMAT, version: FORMAT_VERSION, id: 'beginning', name: 'Beginning', units: [structuredClone(written)] };
  return (parseProject(document) as Project).units[0];
}

/** The beginning of that id. @throws Error for an id that is not among them */
export function beginningOf<T extends Beginning>(among: readonly T[], id: string): T {
  const found = among.find((one) => one.id === id);
  if (!found) throw new Error(`there is no beginning ${id}`);
  return found;
}
