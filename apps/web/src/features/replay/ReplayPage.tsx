import { type Project, type Scenario, type UnitHead, unitHeads } from '@insidia/core';
import { useMemo } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { useQuery } from '../../app/query';
import { useView } from '../../app/view';
import { useReplay } from './useReplay';
import { useAppSelector } from '../../store/store';
import { arenaOf, besideOf, duelOf, wholeOf, turnedOf, turnedWords } from './address';
import { Player } from './Player';
import { NotHere } from '../../parts/NotHere';

/** One run of an encounter or a duel, to be looked at instant by instant. Its address can be shared. */
export function ReplayPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Replays project={project} />;
}

const DUEL = 'duel';

function Replays({ project }: { project: Project }) {
  const { encounter: subjectId } = useParams();
  const { search } = useLocation();
  const encounter = project.encounters.find(({ id }) => id === subjectId) ?? (subjectId === undefined ? project.encounters[0] : undefined);
  if (!encounter && subjectId !== DUEL)
    return (
      <NotHere
        asked={subjectId}
        nothing="Nothing to replay yet"
        about="A replay shows one run of an encounter, or of a duel, instant by instant."
        others={project.encounters}
        to={(id) => ({ pathname: `/projects/${project.id}/replay/${id}`, search })}
      >
        <Link
          className={project.encounters.length ? 'btn' : 'btn btn-primary'}
          to={{ pathname: `/projects/${project.id}/encounters`, search }}
        >
          To the encounters
        </Link>
      </NotHere>
    );
  return <One key={subjectId ?? encounter?.id} project={project} encounterId={encounter?.id} />;
}

function One({ project, encounterId }: { project: Project; encounterId: string | undefined }) {
  const [query, change] = useQuery();
  const [view] = useView(project);
  const before = useAppSelector((state) => state.document.before);
  const heads = useMemo(() => new Map(unitHeads(project).map((head): [string, UnitHead] => [head.id, head])), [project]);
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const scenario = useMemo<Scenario | undefined>(() => {
    const fight: Scenario | undefined = encounterId ? { kind: 'encounter', id: encounterId, ...lens } : duelOf(query, project, lens);
    const turned = turnedOf(query);
    return fight && turned.length ? { ...fight, turned } : fight;
  }, [encounterId, query, project, lens]);
  const seed = wholeOf(query.get('seed')) ?? 1;
  const vs = query.get('vs');
  const { replay, failure } = useReplay(project, scenario, seed);
  const beside = useMemo(() => besideOf(vs), [vs]);
  const otherScenario = useMemo(
    () => (scenario && beside?.kind === 'tier' ? { ...scenario, tier: beside.tier } : scenario),
    [scenario, beside],
  );
  const otherProject = beside?.kind === 'before' && before ? before : project;
  const other = useReplay(otherProject, beside && otherScenario, beside && (beside.kind === 'seed' ? beside.seed : seed));
  const compared = beside && other.replay;
  const arena = useMemo(() => arenaOf(project, scenario, replay), [project, scenario, replay]);
  const plain = encounterId ? (project.encounters.find(({ id }) => id === encounterId)?.name ?? '') : 'Duel';
  const name = [plain, turnedWords(project, scenario?.turned ?? [])].filter(Boolean).join(' ');
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      {replay && scenario && arena ? (
        <Player
          key={`${seed} ${replay.digest}`}
          project={project}
          scenario={scenario}
          replay={replay}
          compared={compared}
          comparison={vs}
          beside={beside}
          arena={arena}
          heads={heads}
          name={name}
          seed={seed}
          query={query}
          hasBefore={before !== null}
          onQuery={change}
        />
      ) : (
        <main className="col-span-3 p-6 text-ink-2" aria-label="Replay">
          <h1 className="text-page">{name}</h1>
          {failure ? (
            <p role="alert" className="mt-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
              This run can’t be shown: {failure}.
            </p>
          ) : (
            <p className="mt-3">Running seed {seed} …</p>
          )}
        </main>
      )}
    </div>
  );
}
