import type { Project, ReasonLook, Replay, Scenario } from '@insidia/core';
import { useEffect, useState } from 'react';
import type { ReplayMessage, ReplayRequest } from './replayProtocol';
import ReplayWorker from './replayWorker.ts?worker';

let worker: Worker | undefined;
let last = 0;
const waiting = new Map<number, (message: ReplayMessage) => void>();

type Asked = ReplayRequest extends infer R ? (R extends { id: number } ? Omit<R, 'id'> : never) : never;

/** Asks the replay worker; answers come in the order of the questions. */
function ask(request: Asked): Promise<ReplayMessage> {
  if (!worker) {
    worker = new ReplayWorker();
    worker.onmessage = ({ data }: MessageEvent<ReplayMessage>) => {
      waiting.get(data.id)?.(data);
      waiting.delete(data.id);
    };
  }
  const id = ++last;
  const answer = new Promise<ReplayMessage>((done) => waiting.set(id, done));
  worker.postMessage({ ...request, id });
  return answer;
}

export interface ReplayState {
  replay?: Replay;
  failure?: string;
}

/** The recorded run of a scenario and seed; nothing until it is there. */
export function useReplay(project: Project, scenario: Scenario | undefined, seed: number | undefined): ReplayState {
  const [state, setState] = useState<ReplayState>({});
  const key = JSON.stringify([scenario, seed]);
  useEffect(() => {
    if (!scenario || seed === undefined) return;
    let current = true;
    void ask({ asks: 'replay', project, scenario, seed }).then((message) => {
      if (!current) return;
      if ('replay' in message) setState({ replay: message.replay });
      if ('failure' in message) setState({ failure: message.failure });
    });
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the scenario is in the key
  }, [project, key]);
  return state;
}

/** Why a unit of a run does what it does at an instant. */
export function useReasons(
  project: Project,
  scenario: Scenario | undefined,
  seed: number | undefined,
  unit: number | undefined,
  time: number,
): ReasonLook | undefined {
  const [look, setLook] = useState<ReasonLook>();
  const key = JSON.stringify([scenario, seed, unit, time]);
  useEffect(() => {
    if (!scenario || seed === undefined || unit === undefined) return;
    let current = true;
    void ask({ asks: 'reasons', project, scenario, seed, unit, time }).then((message) => {
      if (current) setLook('reasons' in message ? message.reasons : undefined);
    });
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the scenario is in the key
  }, [project, key]);
  return look;
}
