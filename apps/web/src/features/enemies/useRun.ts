import { useAppSelector } from '../../store/store';

/** What the last runs say of the states of a unit; nothing where they are of another. Only who asks repaints when they are done. */
export function useRun(unit: string, states: number) {
  return useAppSelector((store) => {
    const own = store.readout.duel.answer?.now.summary.kinds.find(({ id }) => id === unit)?.states;
    return own?.length === states ? own : undefined;
  });
}
