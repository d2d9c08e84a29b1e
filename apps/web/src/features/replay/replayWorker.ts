/** Records runs for looking at, and looks up reasons in them, off the page’s thread. */
import { type Project, Runner, type Scenario, compileScenario, reasonLook, replayWith } from '@insidia/core';
import type { ReplayMessage, ReplayRequest } from './replayProtocol';

/** Fights made ready, by what they are of: looking at one run again costs no compiling. */
const made = new Map<string, Runner>();
const KEPT = 4;

const send = (message: ReplayMessage, transfer: Transferable[] = []) =>
  (postMessage as (message: unknown, transfer: Transferable[]) => void)(message, transfer);

onmessage = ({ data }: MessageEvent<ReplayRequest>) => {
  try {
    const runner = runnerOf(data.project, data.scenario);
    if (data.asks === 'replay') {
      const replay = replayWith(runner, data.seed);
      send({ id: data.id, replay }, [replay.unitData.buffer, replay.shotData.buffer, replay.areaData.buffer]);
    } else send({ id: data.id, reasons: reasonLook(runner, data.seed, data.unit, data.time) });
  } catch (error) {
    send({ id: data.id, failure: (error as Error).message });
  }
};

function runnerOf(project: Project, scenario: Scenario): Runner {
  const compiled = compileScenario(project, scenario);
  const key = JSON.stringify(compiled);
  const known = made.get(key) ?? new Runner(compiled);
  made.delete(key);
  made.set(key, known);
  if (made.size > KEPT) made.delete(made.keys().next().value as string);
  return known;
}
