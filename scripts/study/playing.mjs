/** A planted place that no enemy gets to, from which everything can be shot: how often the search for the cheapest way to win names it. */

const WALL = { height: 0.1, thickness: 0.3 };
const CELL = { kind: 'encounter', id: 'first-bell', skill: 'regular' };
const BUDGET = 12_000;

/** First Bell with ten Clippers who see everything, and a pen of low walls somewhere in its court. */
function withPen(core, project, { x, y }, half) {
  const document = structuredClone(project);
  const round = (value) => Math.round(100 * value) / 100;
  const wall = (id, x0, y0, x1, y1) => ({
    id,
    name: id,
    height: WALL.height,
    corners: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ].map(([cornerX, cornerY]) => ({ x: round(cornerX), y: round(cornerY) })),
  });
  const outer = half + WALL.thickness;
  const court = document.arenas.find(({ id }) => id === 'boiler-court');
  court.points = [];
  court.walls = [
    wall('west', x - outer, y - outer, x - half, y + outer),
    wall('east', x + half, y - outer, x + outer, y + outer),
    wall('south', x - half, y - outer, x + half, y - half),
    wall('north', x - half, y + half, x + half, y + outer),
  ];
  const fight = document.encounters.find(({ id }) => id === CELL.id);
  fight.limit = 120;
  Object.assign(fight.waves[0].groups[0], { count: { min: 10, max: 10 }, at: ['hatch', 'north-east', 'south-west'], alerted: true });
  Object.assign(document.units.find(({ id }) => id === 'clipper').senses, { sight: 60, lose: 80, memory: 60 });
  document.encounters = [fight];
  delete document.brief;
  delete document.tuning;
  return core.parseProject(document);
}

/** @param even makes a generator of even draws from a seed @returns rows of the study's table */
export function playing(core, project, even, repeats) {
  let found = 0;
  for (let repeat = 1; repeat <= repeats; repeat++) {
    const draw = even(repeat * 7919 + 13);
    // Clear of where the party begins: who stands in it already has nothing to find.
    let middle = { x: 0, y: 0 };
    do middle = { x: 28 * draw() - 14, y: 18 * draw() - 9 };
    while (Math.hypot(middle.x + 8, middle.y) < 5);
    const half = 1.6 + draw();
    const penned = withPen(core, project, middle, half);
    const { ways } = core.workThrough(core.playWork({ project: penned, cell: CELL, budget: BUDGET }));
    const inside = ({ turns }) => {
      const [x, y] = ['x', 'y'].map((axis) => turns.find(({ path }) => path.endsWith(`partyStart/${axis}`))?.value ?? NaN);
      return Math.abs(x - middle.x) < half && Math.abs(y - middle.y) < half;
    };
    if (ways.some(inside)) found++;
  }
  return [
    [
      `First Bell with ten Clippers, a pen that none of them gets into: named among ways to win far more cheaply, ${BUDGET.toLocaleString('en')} runs`,
      `${found} of ${repeats}`,
      '≥ 9 of 10',
    ],
  ];
}
