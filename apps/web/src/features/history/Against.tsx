import { InvalidDocument, type Project, matched, parseProject, tierAs } from '@insidia/core';
import { type ChangeEvent, useEffect, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { type Listed, api } from '../../server/api';

/** Another version than a revision: of which project, and what is compared with what. */
export interface Other {
  name: string;
  before: Project;
  after: Project;
  /** The tier at which they are compared, where only that is another. */
  tier?: string;
  /** What was found by its name, for its id is another. */
  byName: number;
}

const NONE = 'none';

/** What the project as it is now can be compared with besides its own revisions: another project, a file; or one of its tiers with another. */
export function Against({ project, onOther }: { project: Project; onOther: (other: Other | undefined) => void }) {
  const [others, setOthers] = useState<Listed[]>([]);
  const [trouble, setTrouble] = useState<string>();
  const [tiers, setTiers] = useState<[string, string]>([NONE, NONE]);
  useEffect(() => {
    // Without the list there is nothing to choose from, and what else is here works.
    api.list().then(
      (list) => setOthers(list.filter(({ id }) => id !== project.id)),
      () => setOthers([]),
    );
  }, [project.id]);
  const against = (name: string, document: Project) => {
    const { project: before, byName } = matched(project, document);
    setTrouble(undefined);
    onOther({ name, before, after: project, byName: byName.length });
  };
  const failed = (name: string) => (error: Error) => {
    const [first] = error instanceof InvalidDocument ? error.problems : [];
    setTrouble(`${name}: ${first ? `${first.path} ${first.message}` : error.message}`);
  };
  const read = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file)
      void file
        .text()
        .then((text) => against(file.name, parseProject(JSON.parse(text))))
        .catch(failed(file.name));
  };
  const chooseTier = (side: 0 | 1, id: string) => {
    const next: [string, string] = side === 0 ? [id, tiers[1]] : [tiers[0], id];
    setTiers(next);
    const [from, to] = next.map((one) => project.tiers.find((tier) => tier.id === one));
    if (!from || !to || from === to) return;
    onOther({
      name: `${from.name}, were it as ${to.name}`,
      before: project,
      after: tierAs(project, from.id, to.id),
      tier: from.id,
      byName: 0,
    });
  };
  const named = project.tiers.map(({ id, name }) => ({ id, name }));
  return (
    <section aria-label="Compare with something else" className="mt-3 border-t pt-2 text-table">
      <h3 className="text-label text-ink-3">Or compare what is on the screen</h3>
      <div className="mt-1 flex flex-wrap items-end gap-2">
        {others.length > 0 && (
          <span className="w-[200px]">
            <Choose
              label="with another project"
              value={NONE}
              options={[{ id: NONE, name: 'choose …' }, ...others.map(({ id, name }) => ({ id, name }))]}
              onChoose={(id) => {
                const name = others.find((one) => one.id === id)?.name ?? id;
                if (id !== NONE)
                  api
                    .load(id)
                    .then(({ document }) => against(name, document))
                    .catch(failed(name));
              }}
            />
          </span>
        )}
        <label className="btn cursor-pointer focus-within:outline-2">
          with a file …
          <input type="file" accept=".json" className="sr-only" onChange={read} aria-label="A project file to compare with" />
        </label>
        {named.length > 1 && (
          <>
            <span className="w-[130px]">
              <Choose
                label="or a tier"
                value={tiers[0]}
                options={[{ id: NONE, name: 'choose …' }, ...named]}
                onChoose={(id) => chooseTier(0, id)}
              />
            </span>
            <span className="w-[130px]">
              <Choose
                label="were it as"
                value={tiers[1]}
                options={[{ id: NONE, name: 'choose …' }, ...named]}
                onChoose={(id) => chooseTier(1, id)}
              />
            </span>
          </>
        )}
      </div>
      {trouble && (
        <p role="alert" className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1">
          {trouble}
        </p>
      )}
    </section>
  );
}
