import { type Arena, type Corner, effectiveUnit, unitHeads } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { drag } from '../../fields/drag';
import { Mini } from '../../fields/Mini';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { guarded } from '../../parts/guarded';
import { ArenaPlan } from '../../visuals/ArenaPlan';
import { planScale } from '../../visuals/plan';
import { useSize } from '../../visuals/useWidth';
import { Ground } from './ArenaForm';
import { ArenaHandle } from './ArenaHandle';
import { ArenaLooker } from './ArenaLooker';
import { Chosen } from './Chosen';
import {
  ADDED_WORDS,
  type Added,
  addThing,
  doubleThings,
  holding,
  keyWay,
  removable,
  removeThings,
  turnedWith,
  way,
  WHOLE,
  withCorner,
  zoomedBy,
} from './edits';
import { cornersOf, itemOf, KINDS, moved, place, type Ref, sameRef, START } from './shapes';

/** px that the bar above the plan and its margins take; how high the plan is at least. */
const [ABOVE, LEAST] = [96, 420];
const FORM = 270;
const NOBODY = '*';
const SPOKEN_OF = { spawnPoints: 'spawnPoint', points: 'point', zones: 'zone' } as const;

/** The plan of an arena: everything on it can be chosen, moved, turned, resized by the mouse, by keys and by exact numbers. */
export const ArenaEditor = guarded('The arena', function ArenaEditor({ editor }: { editor: ObjectEditor<'arenas'> }) {
  const arena: Arena = editor.base;
  const { project } = editor;
  const [view] = useView(project);
  const [ref, { width, height: room }] = useSize<HTMLDivElement>({ width: 800, height: 756 });
  const height = Math.max(LEAST, room - ABOVE);
  const [selected, setSelected] = useState<Ref[]>([]);
  const [zoom, setZoom] = useState(WHOLE);
  const [pointer, setPointer] = useState<Corner>();
  const [looker, setLooker] = useState(NOBODY);
  const svg = useRef<SVGSVGElement>(null);
  const plan = useMemo(() => planScale(arena, width - FORM, height, zoom), [arena, width, height, zoom]);
  const chosen = selected.filter((each) => itemOf(arena, each));
  const change = (name: string, how: (own: Arena) => void, mark?: string) => editor.change(`${arena.name}: ${name}`, how, mark);
  const named = (each: Ref) => itemOf(arena, each)?.name ?? each.id;
  const names = chosen.map(named).join(', ');
  const at = (event: { clientX: number; clientY: number }) => {
    const box = svg.current!.getBoundingClientRect();
    return plan.at(event.clientX - box.left, event.clientY - box.top);
  };
  const add = (kind: Added) => {
    const about = plan.at((width - FORM) / 2, height / 2);
    change(`new ${ADDED_WORDS[kind]}`, (own) => setSelected([addThing(own, kind, about)]));
  };
  // Others may speak of points; where one must have what is to go, that is changed first.
  const held = useMemo(
    () => selected.flatMap(({ kind, id }) => (kind in SPOKEN_OF ? editor.holding(SPOKEN_OF[kind as keyof typeof SPOKEN_OF], id) : [])),
    [editor, selected],
  );
  const remove = () => {
    const gone = removable(chosen);
    if (!gone.length || held.length) return;
    change(`${gone.map(named).join(', ')} removed`, (own) => removeThings(own, gone));
    setSelected([]);
  };
  const duplicate = () => change(`${names} doubled`, (own) => setSelected(doubleThings(own, chosen)));
  const reshape = (name: string, how: (corners: Corner[], index: number) => Corner[], mark?: string) =>
    change(name, (own) => chosen.forEach((each, i) => place(own, each, how(cornersOf(own, each), i))), mark);

  /** Takes hold of one thing, or of all that are chosen, and moves them. */
  const grab = (each: Ref) => (event: PointerEvent<SVGElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const holds = holding(chosen, each, event.shiftKey);
    setSelected(holds);
    const start = at(event);
    const before = holds.map((one) => cornersOf(arena, one));
    const mark = `move ${event.timeStamp}`;
    drag(event, (e) => {
      const now = at(e);
      const by = way(before[0] ?? [], { x: now.x - start.x, y: now.y - start.y }, e.altKey);
      if (Math.abs(by.x) + Math.abs(by.y) < 1e-9) return;
      const moves = (own: Arena) => holds.forEach((one, i) => place(own, one, moved(before[i], by.x, by.y)));
      change(`${holds.map(named).join(', ')} moved`, moves, mark);
    });
  };
  /** One corner of a shape; where the shape would no longer be convex it stays. */
  const grabCorner = (each: Ref, index: number) => (event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    const before = cornersOf(arena, each);
    const mark = `corner ${event.timeStamp}`;
    drag(event, (e) => {
      const next = withCorner(before, index, at(e), e.altKey);
      if (next) change(`a corner of ${named(each)}`, (own) => place(own, each, next), mark);
    });
  };
  const grabTurn = (each: Ref) => (event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    const before = cornersOf(arena, each);
    const start = at(event);
    const mark = `turn ${event.timeStamp}`;
    drag(event, (e) => change(`${named(each)} turned`, (own) => place(own, each, turnedWith(before, start, at(e), e.altKey)), mark));
  };
  const pan = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0 && event.button !== 1) return;
    setSelected([]);
    let { clientX, clientY } = event;
    drag(event, (e) => {
      const [byX, byY] = [e.clientX - clientX, e.clientY - clientY];
      ({ clientX, clientY } = e);
      setZoom((old) => ({ ...old, panX: old.panX + byX, panY: old.panY + byY }));
    });
  };
  const keys = (event: KeyboardEvent) => {
    const by = keyWay(event);
    if (by && chosen.length) {
      event.preventDefault();
      reshape(`${names} moved`, (corners) => moved(corners, by.x, by.y), `arena keys ${chosen.map(({ id }) => id).join()}`);
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      remove();
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      duplicate();
    } else if (event.key === '+' || event.key === '=') setZoom((old) => zoomedBy(old, 1.25));
    else if (event.key === '-') setZoom((old) => zoomedBy(old, 1 / 1.25));
  };
  const heads = unitHeads(project);
  const looking = looker === NOBODY ? undefined : effectiveUnit(project, looker, { tier: view.tier, skill: view.skill }).unit;
  const all: Ref[] = [...KINDS.flatMap((kind) => (arena[kind] as { id: string }[]).map(({ id }) => ({ kind, id }))), START];
  return (
    <main ref={ref} className="flex min-h-0 min-w-0 flex-col" aria-label={arena.name}>
      <div className="flex items-center gap-1.5 px-4 pb-1.5 pt-2">
        <h1 className="min-w-0 truncate pr-2 text-page tracking-tight">{arena.name}</h1>
        {([...KINDS, 'standing'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="btn"
            title={kind === 'standing' ? 'a point with health: something to defend or to destroy' : undefined}
            onClick={() => add(kind)}
          >
            + {ADDED_WORDS[kind]}
          </button>
        ))}
        <span className="flex-1" />
        <div className="w-[150px]">
          <Choose
            quiet
            label="Seen by"
            value={looker}
            options={[{ id: NOBODY, name: 'seen by …' }, ...heads.map(({ id, name }) => ({ id, name }))]}
            onChoose={setLooker}
          />
        </div>
        <button type="button" className="btn" onClick={() => setZoom(WHOLE)}>
          Whole
        </button>
        <Mini sign="add" label="Nearer" onClick={() => setZoom((old) => zoomedBy(old, 1.25))} />
        <span className="w-9 text-right text-table text-ink-2">{Math.round(100 * zoom.zoom)} %</span>
      </div>
      <div className="grid min-h-0 flex-1 border-t" style={{ gridTemplateColumns: `minmax(0, 1fr) ${FORM}px` }}>
        <div
          className="min-w-0 overflow-hidden"
          tabIndex={0}
          role="application"
          aria-label="Plan: arrow keys move what is chosen, Shift by more, Alt by less; Delete removes, Ctrl D doubles"
          onKeyDown={keys}
          onWheel={(event) => {
            const factor = event.deltaY < 0 ? 1.15 : 1 / 1.15;
            setZoom((old) => zoomedBy(old, factor));
          }}
        >
          <ArenaPlan
            arena={arena}
            width={width - FORM}
            height={height}
            plan={plan}
            label={`${arena.name} to scale`}
            svg={{
              ref: svg,
              onPointerDown: pan,
              onPointerMove: (event) => looking && setPointer(at(event)),
              onPointerLeave: () => setPointer(undefined),
            }}
          >
            {looking && pointer && <ArenaLooker arena={arena} project={project} looking={looking} at={pointer} plan={plan} />}
            {all.map((each) => (
              <ArenaHandle
                key={`${each.kind} ${each.id}`}
                each={each}
                arena={arena}
                plan={plan}
                on={chosen.some((one) => sameRef(one, each))}
                alone={chosen.length === 1 && sameRef(chosen[0], each)}
                name={named(each)}
                onGrab={grab(each)}
                onCorner={(index) => grabCorner(each, index)}
                onTurn={grabTurn(each)}
                onSelect={() => setSelected([each])}
              />
            ))}
          </ArenaPlan>
        </div>
        <div className="scroll min-h-0 border-l px-3 py-2">
          {chosen.length === 0 && <Ground editor={editor} />}
          {chosen.length > 0 && (
            <Chosen
              editor={editor}
              arena={arena}
              chosen={chosen}
              names={names}
              held={held}
              onReshape={reshape}
              onDouble={duplicate}
              onRemove={remove}
            />
          )}
        </div>
      </div>
    </main>
  );
});
