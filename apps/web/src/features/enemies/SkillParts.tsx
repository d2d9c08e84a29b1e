import { type FieldTweak, type Project, type Setting, type Unit, idFor, nameFor, takenIds, tweakApplies } from '@insidia/core';
import { Mini } from '../../fields/Mini';
import { NameField } from '../../fields/NameField';
import { TweaksField } from '../../fields/TweaksField';
import type { UnitEditor } from '../../fields/useUnitEditor';

type List = 'skills' | 'styles';
const WORDS: Record<List, { title: string; one: string; about: string }> = {
  skills: { title: 'Skills', one: 'skill', about: 'how well the player plays: tweaks on the party' },
  styles: { title: 'Play styles', one: 'style', about: 'how the player likes to play: tweaks on the party' },
};

/** How well and in what way the simulated player plays, as the lists of tweaks that they are. */
export function SkillParts({ editor }: { editor: UnitEditor }) {
  return (
    <section className="border-t px-4 py-2" aria-label="Skills and styles">
      <div className="section-head">
        <h3>Skills and styles</h3>
        <span className="note">tweaks on the whole party, or on {editor.base.name} alone; “viewing as” above looks through one skill</span>
      </div>
      {(['skills', 'styles'] as const).map((list) => (
        <TweakLists key={list} list={list} editor={editor} />
      ))}
    </section>
  );
}

function TweakLists({ list, editor }: { list: List; editor: UnitEditor }) {
  const { project, base, apply } = editor;
  const { title, one, about } = WORDS[list];
  const items = project[list] as Setting[];
  const write = (next: Setting[], name: string) => apply({ document: { ...project, [list]: next } as Project, name });
  const add = () => {
    const name = nameFor(
      `new ${one}`,
      items.map((item) => item.name),
    );
    const id = idFor(name, takenIds(project));
    write([...items, { id, name, tweaks: [] }], `New ${one}`);
  };
  return (
    <div className="mt-1" role="group" aria-label={title}>
      <p className="flex items-baseline gap-2 text-table">
        <b>{title}</b>
        <span className="min-w-0 flex-1 truncate text-ink-3">{about}</span>
        <button type="button" className="link" onClick={add}>
          add a {one}
        </button>
      </p>
      <div className="grid grid-cols-2 gap-x-4">
        {items.map((item, i) => (
          <div key={item.id} role="group" aria-label={item.name} className="border-t border-hair py-1">
            <div className="mb-1 flex items-end gap-1">
              <NameField
                quiet
                label={`Name of the ${one} ${item.name}`}
                width={150}
                of={item}
                among={items}
                onName={(name) =>
                  write(
                    items.map((each, j) => (j === i ? { ...each, name } : each)),
                    `${item.name} is called ${name}`,
                  )
                }
              />
              <span className="flex-1" />
              <Mini
                sign="remove"
                label={`Remove ${item.name}`}
                onClick={() =>
                  write(
                    items.filter((_, j) => j !== i),
                    `${item.name} removed`,
                  )
                }
              />
            </div>
            <TweaksField
              label={item.name}
              tweaks={item.tweaks}
              unit={base}
              onChange={(tweaks) =>
                write(
                  items.map((each, j) => (j === i ? { ...each, tweaks: tweaks.map((tweak) => scoped(tweak, base)) } : each)),
                  `${item.name}: tweaks changed`,
                )
              }
            />
            <Others tweaks={item.tweaks} unit={base} />
          </div>
        ))}
      </div>
    </div>
  );
}

/** A tweak that says not yet whose it is speaks of the party. */
function scoped(tweak: FieldTweak, unit: Unit): Setting['tweaks'][number] {
  return { scope: unit.side === 'party' ? 'party' : 'enemies', ...tweak };
}

function Others({ tweaks, unit }: { tweaks: Setting['tweaks']; unit: Unit }) {
  const others = tweaks.filter((tweak) => !tweakApplies(tweak, unit)).length;
  if (!others) return null;
  return (
    <p className="text-label text-ink-3">
      {others} {others === 1 ? 'speaks' : 'speak'} of others than {unit.name}.
    </p>
  );
}
