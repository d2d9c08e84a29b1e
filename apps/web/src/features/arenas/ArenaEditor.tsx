import {
  type Arena,
  type Corner,
  SIGHT_RAYS,
  type SightRay,
  effectiveUnit,
  idFor,
  nameFor,
  sightFrom,
  unitHeads,
  shown,
} from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { Mini } from '../../fields/Mini';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { ArenaPlan } from '../../visuals/ArenaPlan';
import { planScale } from '../../visuals/plan';
import { useWidth } from '../../visuals/useWidth';
import { Exact, Fields, Ground } from './ArenaForm';
import { ArenaHandle } from './ArenaHandle';
import {
  ALIGNS,
  KINDS,
  START,
  alignment,
  cornersOf,
  isConvex,
  itemOf,
  middle,
  moved,
  place,
  sameRef,
  scaled,
  turned,
  type Kind,
  type Ref,
  SNAP,
  WORDS,
} from './shapes';
import { guarded } from '../../parts/guarded';

const HEIGHT = 620;
const FORM = 270;
const NOBODY = '*';
const SPOKEN_OF = { spawnPoints: 'spawnPoint', points: 'point' } as const;

/** The plan of an arena: everything on it can be chosen, moved, turned, resized by the mouse, by keys and by exact numbers. */
export const ArenaEditor = guarded('The arena', function ArenaEditor({ editor }: { editor: ObjectEditor<'arenas'> }) {
  const arena: Arena = editor.base;
  const { project } = editor;
  const [view] = useView(project);
  const [ref, width] = useWidth<HTMLDivElement>(800);
  const [selected, setSelected] = useState<Ref[]>([]);
  const [zoom, setZoom] = useState({ zoom: 1, panX: 0, panY: 0 });
  const [pointer, setPointer] = useState<Corner>();
  const [looker, setLooker] = useState(NOBODY);
  const svg = useRef<SVGSVGElement>(null);
  const plan = useMemo(() => planScale(arena, width - FORM, HEIGHT, zoom), [arena, width, zoom]);
  const chosen = selected.filter((each) => itemOf(arena, each));
  const change = (name: string, how: (own: Arena) => void, mark?: string) => editor.change(`${arena.name}: ${name}`, how, mark);
  const named = (each: Ref) => itemOf(arena, each)?.name ?? each.id;
  const at = (event: { clientX: number; clientY: number }) => {
    const box = svg.current!.getBoundingClientRect();
    return plan.at(event.clientX - box.left, event.clientY - box.top);
  };
  const snap = (value: number, fine: boolean) => (fine ? value : Math.round(value / SNAP) * SNAP);

  const add = (kind: Kind) => {
    const list = arena[kind] as { id: string; name: string }[];
    const name = nameFor(
      WORDS[kind].charAt(0).toUpperCase() + WORDS[kind].slice(1),
      list.map((item) => item.name),
    );
    const id = idFor(
      name,
      list.map((item) => item.id),
    );
    const centre = plan.at((width - FORM) / 2, HEIGHT / 2);
    const [x, y] = [snap(centre.x, false), snap(centre.y, false)];
    const box = (w: number, d: number): Corner[] => [
      { x: x - w / 2, y: y - d / 2 },
      { x: x + w / 2, y: y - d / 2 },
      { x: x + w / 2, y: y + d / 2 },
      { x: x - w / 2, y: y + d / 2 },
    ];
    const made = {
      walls: { id, name, height: 3, corners: box(4, 1) },
      ground: { id, name, kind: 'mud', corners: box(5, 4) },
      zones: { id, name, by: 'party', flag: idFor(name, []), corners: box(5, 4) },
      points: { id, name, x, y, radius: 0.5, height: 1 },
      spawnPoints: { id, name, x, y, scatter: 1, facing: 180 },
    }[kind];
    change(`new ${WORDS[kind]}`, (own) => void (own[kind] as unknown[]).push(made));
    setSelected([{ kind, id }]);
  };
  // Others may speak of points; where one must have what is to go, that is changed first.
  const held = useMemo(
    () => selected.flatMap(({ kind, id }) => (kind in SPOKEN_OF ? editor.holding(SPOKEN_OF[kind as keyof typeof SPOKEN_OF], id) : [])),
    [editor, selected],
  );
  const remove = () => {
    const gone = chosen.filter(({ kind }) => kind !== 'partyStart');
    if (!gone.length || held.length) return;
    change(`${gone.map(named).join(', ')} removed`, (own) => {
      for (const { kind, id } of gone)
        if (kind !== 'partyStart')
          (own[kind] as { id: string }[]) = (own[kind] as { id: string }[]).filter((item) => item.id !== id) as never;
    });
    setSelected([]);
  };
  const duplicate = () => {
    const copies: Ref[] = [];
    change(`${chosen.map(named).join(', ')} doubled`, (own) => {
      for (const each of chosen) {
        if (each.kind === 'partyStart') continue;
        const list = own[each.kind] as { id: string; name: string }[];
        const item = structuredClone(list.find(({ id }) => id === each.id)!);
        item.name = nameFor(
          item.name,
          list.map(({ name }) => name),
        );
        item.id = idFor(
          item.name,
          list.map(({ id }) => id),
        );
        list.push(item);
        const copy = { kind: each.kind, id: item.id };
        place(own, copy, moved(cornersOf(own, copy), 1, -1));
        copies.push(copy);
      }
    });
    setSelected(copies);
  };
  const reshape = (name: string, how: (corners: Corner[], index: number) => Corner[], mark?: string) =>
    change(name, (own) => chosen.forEach((each, i) => place(own, each, how(cornersOf(own, each), i))), mark);

  /** Takes hold of one thing, or of all that are chosen, and moves them. */
  const grab = (each: Ref) => (event: PointerEvent<SVGElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const already = chosen.some((one) => sameRef(one, each));
    const holds = event.shiftKey ? (already ? chosen.filter((one) => !sameRef(one, each)) : [...chosen, each]) : already ? chosen : [each];
    setSelected(holds);
    const start = at(event);
    const before = holds.map((one) => cornersOf(arena, one));
    const mark = `move ${event.timeStamp}`;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    const first = middle(before[0] ?? []);
    const move = (e: globalThis.PointerEvent) => {
      const now = at(e);
      // The first of them snaps; the others keep their places beside it.
      const [dx, dy] = [snap(first.x + now.x - start.x, e.altKey) - first.x, snap(first.y + now.y - start.y, e.altKey) - first.y];
      if (Math.abs(dx) + Math.abs(dy) < 1e-9) return;
      change(`${holds.map(named).join(', ')} moved`, (own) => holds.forEach((one, i) => place(own, one, moved(before[i], dx, dy))), mark);
    };
    target.addEventListener('pointermove', move);
    const end = () => target.removeEventListener('pointermove', move);
    target.addEventListener('pointerup', end, { once: true });
    target.addEventListener('pointercancel', end, { once: true });
  };
  /** One corner of a shape; where the shape would no longer be convex it stays. */
  const grabCorner = (each: Ref, index: number) => (event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    const before = cornersOf(arena, each);
    const mark = `corner ${event.timeStamp}`;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    const move = (e: globalThis.PointerEvent) => {
      const now = at(e);
      const next = before.map((corner, i) => (i === index ? { x: snap(now.x, e.altKey), y: snap(now.y, e.altKey) } : corner));
      if (isConvex(next)) change(`a corner of ${named(each)}`, (own) => place(own, each, next), mark);
    };
    target.addEventListener('pointermove', move);
    const end = () => target.removeEventListener('pointermove', move);
    target.addEventListener('pointerup', end, { once: true });
    target.addEventListener('pointercancel', end, { once: true });
  };
  const grabTurn = (each: Ref) => (event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    const before = cornersOf(arena, each);
    const centre = middle(before);
    const angle = (p: Corner) => (Math.atan2(p.y - centre.y, p.x - centre.x) * 180) / Math.PI;
    const start = angle(at(event));
    const mark = `turn ${event.timeStamp}`;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    const move = (e: globalThis.PointerEvent) => {
      const by = angle(at(e)) - start;
      const steps = e.altKey ? by : Math.round(by / 15) * 15;
      change(`${named(each)} turned`, (own) => place(own, each, turned(before, steps)), mark);
    };
    target.addEventListener('pointermove', move);
    const end = () => target.removeEventListener('pointermove', move);
    target.addEventListener('pointerup', end, { once: true });
    target.addEventListener('pointercancel', end, { once: true });
  };
  const pan = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0 && event.button !== 1) return;
    setSelected([]);
    const { clientX, clientY } = event;
    const from = zoom;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    const move = (e: globalThis.PointerEvent) =>
      setZoom({ ...from, panX: from.panX + e.clientX - clientX, panY: from.panY + e.clientY - clientY });
    target.addEventListener('pointermove', move);
    const end = () => target.removeEventListener('pointermove', move);
    target.addEventListener('pointerup', end, { once: true });
  };
  const keys = (event: KeyboardEvent) => {
    const way = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (way && chosen.length) {
      event.preventDefault();
      const by = SNAP * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
      reshape(
        `${chosen.map(named).join(', ')} moved`,
        (corners) => moved(corners, way[0] * by, way[1] * by),
        `arena keys ${chosen.map(({ id }) => id).join()}`,
      );
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      remove();
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      duplicate();
    } else if (event.key === '+' || event.key === '=') setZoom((old) => ({ ...old, zoom: Math.min(8, old.zoom * 1.25) }));
    else if (event.key === '-') setZoom((old) => ({ ...old, zoom: Math.max(0.25, old.zoom / 1.25) }));
  };
  const heads = unitHeads(project);
  const looking = looker === NOBODY ? undefined : effectiveUnit(project, looker, { tier: view.tier, skill: view.skill }).unit;
  const seen = useMemo(() => {
    if (!looking || !pointer) return undefined;
    const foes = heads.filter(({ side }) => side !== looking.side).map(({ id }) => effectiveUnit(project, id, {}).unit.body.height);
    return sightFrom(arena, pointer.x, pointer.y, looking.body.eyeHeight, Math.min(looking.senses.sight, 80), Math.min(...foes, 1.8) / 2);
  }, [arena, looking, pointer, heads, project]);
  const all: Ref[] = [...KINDS.flatMap((kind) => (arena[kind] as { id: string }[]).map(({ id }) => ({ kind, id }))), START];
  return (
    <main ref={ref} className="flex min-h-0 min-w-0 flex-col" aria-label={arena.name}>
      <div className="flex items-center gap-1.5 px-4 pb-1.5 pt-2">
        <h1 className="min-w-0 truncate pr-2 text-page tracking-tight">{arena.name}</h1>
        {KINDS.map((kind) => (
          <button key={kind} type="button" className="btn" onClick={() => add(kind)}>
            + {WORDS[kind]}
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
        <button type="button" className="btn" onClick={() => setZoom({ zoom: 1, panX: 0, panY: 0 })}>
          Whole
        </button>
        <Mini sign="add" label="Nearer" onClick={() => setZoom((old) => ({ ...old, zoom: Math.min(8, old.zoom * 1.25) }))} />
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
            setZoom((old) => ({ ...old, zoom: Math.min(8, Math.max(0.25, old.zoom * factor)) }));
          }}
        >
          <ArenaPlan
            arena={arena}
            width={width - FORM}
            height={HEIGHT}
            plan={plan}
            label={`${arena.name} to scale`}
            svg={{
              ref: svg,
              onPointerDown: pan,
              onPointerMove: (event) => looking && setPointer(at(event)),
              onPointerLeave: () => setPointer(undefined),
            }}
          >
            {seen && pointer && <path d={inView(seen, pointer, plan)} fill="var(--focus)" fillOpacity={0.2} pointerEvents="none" />}
            {looking && pointer && (
              <g pointerEvents="none">
                {looking.attacks.map(({ id, name, range }) => (
                  <g key={id}>
                    <circle
                      cx={plan.x(pointer.x)}
                      cy={plan.y(pointer.y)}
                      r={(looking.body.radius + range.max) * plan.scale}
                      fill="none"
                      stroke={`var(--e-${looking.colour})`}
                      strokeDasharray="4 3"
                    />
                    <text
                      x={plan.x(pointer.x)}
                      y={plan.y(pointer.y) - (looking.body.radius + range.max) * plan.scale - 3}
                      textAnchor="middle"
                      className="t3 halo-s"
                    >
                      {name} {shown(range.max)}
                    </text>
                  </g>
                ))}
                <circle
                  cx={plan.x(pointer.x)}
                  cy={plan.y(pointer.y)}
                  r={looking.body.radius * plan.scale}
                  fill={`var(--e-${looking.colour})`}
                />
              </g>
            )}
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
            <div className="flex flex-col gap-2" role="group" aria-label="Chosen">
              <p className="text-table">
                <b>{chosen.length === 1 ? named(chosen[0]) : `${chosen.length} things`}</b>
              </p>
              <Exact
                chosen={chosen}
                arena={arena}
                onMove={(dx, dy) => reshape(`${chosen.map(named).join(', ')} moved`, (corners) => moved(corners, dx, dy))}
                onTurn={(degrees) => reshape(`${chosen.map(named).join(', ')} turned`, (corners) => turned(corners, degrees))}
                onScale={(wide, deep) => reshape(`${chosen.map(named).join(', ')} resized`, (corners) => scaled(corners, wide, deep))}
              />
              {chosen.length > 1 && (
                <div className="flex flex-wrap gap-1" role="group" aria-label="Align">
                  {ALIGNS.map((how) => (
                    <button
                      key={how}
                      type="button"
                      className="switch"
                      onClick={() => {
                        const by = alignment(
                          chosen.map((each) => cornersOf(arena, each)),
                          how,
                        );
                        reshape(`aligned ${how}`, (corners, i) => moved(corners, by[i].dx, by[i].dy));
                      }}
                    >
                      {how}
                    </button>
                  ))}
                </div>
              )}
              {chosen.length === 1 && <Fields editor={editor} each={chosen[0]} />}
              <div className="flex gap-1.5">
                <button type="button" className="btn" onClick={duplicate}>
                  Double
                </button>
                <button
                  type="button"
                  className="btn"
                  disabled={held.length > 0 || chosen.every(({ kind }) => kind === 'partyStart')}
                  title={held.length ? `to be changed first: ${held.join('; ')}` : undefined}
                  onClick={remove}
                >
                  Remove
                </button>
              </div>
            </div>
          )}
        </div>
      </div>
    </main>
  );
});

/** What is in view as thin wedges, one a ray and stretch. */
function inView(rays: SightRay[], from: Corner, plan: ReturnType<typeof planScale>): string {
  const half = Math.PI / SIGHT_RAYS;
  const at = (angle: number, far: number) =>
    `${plan.x(from.x + Math.cos(angle) * far).toFixed(1)} ${plan.y(from.y + Math.sin(angle) * far).toFixed(1)}`;
  return rays
    .flatMap(({ angle, seen }) =>
      seen.map(
        ([near, far]) => `M${at(angle - half, near)} L${at(angle - half, far)} L${at(angle + half, far)} L${at(angle + half, near)}Z`,
      ),
    )
    .join('');
}
