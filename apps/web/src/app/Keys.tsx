/** What keys do where. */
const KEYS: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'jump to anything'],
      ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
      ['?', 'this sheet'],
      ['Esc', 'close what is open; in a field: as it was'],
    ],
  ],
  [
    'Number fields',
    [
      ['↑ ↓', 'a step up or down; × 10 with Shift, ÷ 10 with Alt'],
      ['Enter', 'write it down'],
      ['2*1.25', 'expressions are worked out'],
      ['drag the label', 'steps by the mouse'],
      ['empty it', 'takes away a number that may be absent'],
      ['Alt T', 'turns it in Tune: what it moves'],
    ],
  ],
  [
    'Strips',
    [
      ['Tab', 'from edge to edge'],
      ['← →', 'moves the edge; × 10 with Shift, ÷ 10 with Alt'],
    ],
  ],
  [
    'Tune',
    [
      ['Ctrl Enter', 'runs what the table lacks: asks again after an edit'],
      ['↑ ↓', 'from number to number of the table'],
    ],
  ],
  [
    'Replay',
    [
      ['Space', 'play, pause'],
      ['← →', 'a step; a second with Shift'],
      ['n, p', 'the next, the previous event'],
    ],
  ],
  [
    'Waves',
    [
      ['← →', 'sooner, later by half a second; 5 s with Shift'],
      ['Alt ↑ ↓', 'moves the wave in its list'],
    ],
  ],
  [
    'Lists and tables',
    [
      ['↑ ↓', 'the next one'],
      ['Shift ↑ ↓ ← →', 'stretches a selection in a table'],
      ['Ctrl C, Ctrl V', 'copies and pastes cells, to and from a spreadsheet'],
      ['Ctrl D', 'fills down'],
      ['Enter, F2, a digit', 'changes the cell'],
    ],
  ],
];

export function Keys() {
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 text-table">
      {KEYS.map(([title, keys]) => (
        <section key={title}>
          <h3 className="border-b border-hair text-body font-semibold">{title}</h3>
          <dl>
            {keys.map(([key, does]) => (
              <div key={key} className="grid grid-cols-[92px_1fr] gap-2 py-0.5">
                <dt className="font-semibold">{key}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}
