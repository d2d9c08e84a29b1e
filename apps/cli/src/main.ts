/**
 * insidia: simulate, trace, tune, compare, check, report, effective, turns and schema, for a terminal or a build pipeline. What a command needs is
 * loaded when it is called: a program that is started for one answer should not wait for all the others.
 */
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import type { CheckOptions } from './check';
import type { CompareOptions } from './compare';
import type { EffectiveOptions } from './effective';
import { EXIT, Exit } from './exit';
import type { ReportRunOptions } from './report';
import type { SimulateOptions } from './simulate';
import type { TraceOptions } from './trace';
import type { FindOptions } from './find';
import type { TuneOptions } from './tune';
import type { TurnsOptions } from './turns';

function number(text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new InvalidArgumentError('it must be a number');
  return value;
}

/** The options that say what is run and through what it is looked at. */
function subject(command: Command): Command {
  return command
    .argument('<file>', 'project document, or - for standard input')
    .option('-e, --encounter <id>', 'encounter to run')
    .option('--duel <enemy>', 'run this enemy against the party members named by --against instead')
    .option('--against <member...>', 'party member of the duel, or several (default: the first)')
    .option('--arena <id>', 'stand in this arena for the duel (default: open ground)')
    .option('--copies <n>', 'enemies in the duel, 1 to 12 (default: 1)', number)
    .option('--with <unit:count...>', 'others of the duel beside the enemy, such as sapwright:1 clipper:2')
    .option(
      '--distance <m>',
      'metres between edges at the start of the duel (default: 12), or cells where it takes turns (default: 6)',
      number,
    )
    .option('--from <place>', 'where they come from: ahead, behind, or a spawn point of the arena (default: ahead)')
    .option('--wall <m>', 'on open ground a wall between them, so high', number)
    .option('--clock <clock>', 'a duel in seconds (continuous) or in turns (rounds) (default: as the fights of its enemy)')
    .option('-t, --tier <id>', 'difficulty tier')
    .option('-s, --skill <id>', 'skill of the simulated player')
    .option('--style <id>', 'play style of the simulated player')
    .option('--players <n>', 'how many of the party take part, 1 to 8', number)
    .option('--step <s>', 'step of movement and senses in seconds', number);
}

function program(write: (text: string) => void, say: (text: string) => void, report: (text: string) => void): Command {
  const insidia = new Command('insidia')
    .description('Simulate and check enemy encounters')
    .version('0.1.0')
    .exitOverride()
    .configureOutput({ writeOut: write, writeErr: say });
  subject(insidia.command('simulate'))
    .description('run an encounter or a duel many times and print what it measures')
    .option('-n, --runs <n>', 'how many runs', number, 200)
    .option('--seed <n>', 'first seed', number, 1)
    .addOption(
      new Option('-f, --format <format>', 'how to print: a table, a line a measure, or a row a run')
        .choices(['table', 'json', 'csv', 'rows'])
        .default('table'),
    )
    .action(async (file: string, options: SimulateOptions) => {
      const [{ readProject }, { simulate }] = await Promise.all([import('./input.js'), import('./simulate.js')]);
      write(simulate(readProject(file), options, report));
    });
  subject(insidia.command('trace'))
    .description('run one seed and print what happened, event by event, with the reasons for every choice')
    .option('--seed <n>', 'seed', number, 1)
    .option('--no-positions', 'leave out where everybody is at every step')
    .option('--no-reasons', 'leave out the reasons')
    .addOption(new Option('-f, --format <format>', 'JSON lines, or sentences').choices(['json', 'jsonl', 'text']).default('jsonl'))
    .action(async (file: string, options: TraceOptions) => {
      const [{ readProject }, { traceRun }] = await Promise.all([import('./input.js'), import('./trace.js')]);
      write(traceRun(readProject(file), options));
    });
  subject(insidia.command('tune'))
    .description('what moves a fight: a tenth of each number, on the same seeds; or how it goes along one')
    .option('-q, --question <id>', 'a question that the project keeps: its fight, goals and dials')
    .option(
      '-g, --goal <measure...>',
      'measures, as MEASURE:STATISTIC:LOW..HIGH or a part of it (default: what the brief wants of this fight, or what is usual)',
    )
    .option(
      '-d, --dial <path...>',
      'numbers to turn, as pointers into the document, with =LOW..HIGH or not; ROLE:/units/*/… for a kind of them, =WORD for a word (default: the strongest of all)',
    )
    .option('--strongest <n>', 'without --dial: how many to name', number, 10)
    .option('--screen <n>', 'without --dial: runs in which all numbers are turned at once to find them', number, 2000)
    .option('--along <path>', 'values of one number instead, with =LOW..HIGH or not')
    .option('--find', 'look for values of the dials with which every goal holds; exit 1 when none is found')
    .option(
      '--cheapest',
      'look for ways of playing that win far more cheaply than as written; exit 1 when one is found that nobody accepted',
    )
    .addOption(new Option('--prefer <what>', 'with --find: what to keep small, or large').choices(['change', 'numbers', 'margin']))
    .option('--budget <n>', 'with --find and --cheapest: runs that it may take (default: 20,000, 16,000)', number)
    .option('--write <file>', 'with --find: the project with the first proposal written')
    .option('--pairs', 'also what the first four do by twos, beyond the sum of what each does alone')
    .option('-n, --runs <n>', 'how many runs of each value (default: 400, or as the question has it)', number)
    .option('--seed <n>', 'first seed', number, 1)
    .addOption(
      new Option('-f, --format <format>', 'how to print; junit: the goals as it is written')
        .choices(['text', 'json', 'csv', 'junit'])
        .default('text'),
    )
    .action(async (file: string, options: TuneOptions & FindOptions & { find?: boolean; cheapest?: boolean }) => {
      if (options.find && options.cheapest) throw new Exit(EXIT.usage, '--find and --cheapest are two questions: ask one');
      if (options.cheapest) {
        for (const name of ['goal', 'dial', 'along', 'pairs', 'prefer', 'write'] as const)
          if (options[name] !== undefined) throw new Exit(EXIT.usage, `--${name} does not belong to --cheapest`);
        const [{ readProject }, { cheapest }] = await Promise.all([import('./input.js'), import('./cheapest.js')]);
        const { text, open } = cheapest(readProject(file), options, report);
        write(text);
        if (open) throw new Exit(EXIT.findings, 'there is a far cheaper way to win');
        return;
      }
      if (options.find) {
        const [{ readProject }, { find }] = await Promise.all([import('./input.js'), import('./find.js')]);
        const { text, found } = find(readProject(file), options, report);
        write(text);
        if (!found) throw new Exit(EXIT.findings, 'nothing was found');
        return;
      }
      for (const name of ['prefer', 'budget', 'write'] as const)
        if (options[name] !== undefined)
          throw new Exit(EXIT.usage, `--${name} belongs to --find${name === 'budget' ? ' or --cheapest' : ''}`);
      const [{ readProject }, { tune }] = await Promise.all([import('./input.js'), import('./tune.js')]);
      write(tune(readProject(file), options, report));
    });
  insidia
    .command('compare')
    .description('two versions of a project on the same seeds: verdicts that flip, what moves, and which edit did it')
    .argument('<before>', 'project document, or - for standard input')
    .argument('<after>', 'the other version')
    .option('-n, --runs <n>', 'how many runs a cell', number, 200)
    .option('--by-edit', 'put every edit in alone, and take it out alone')
    .option('-t, --tier <id...>', 'at these tiers only (default: all)')
    .option('-s, --skill <id...>', 'at these skills only (default: all)')
    .addOption(
      new Option('--fail-on <what>', 'exit 1 when the second version misses a goal, or one that the first did not').choices([
        'missed',
        'flipped',
      ]),
    )
    .addOption(new Option('-f, --format <format>', 'how to print').choices(['text', 'json', 'csv', 'junit']).default('text'))
    .action(async (before: string, after: string, options: CompareOptions & { failOn?: 'missed' | 'flipped' }) => {
      const [{ readProject }, { compare }] = await Promise.all([import('./input.js'), import('./compare.js')]);
      const { text, missed, newlyMissed } = compare(readProject(before), readProject(after), options, report);
      write(text);
      const found = options.failOn === 'missed' ? missed : options.failOn === 'flipped' ? newlyMissed : 0;
      if (found > 0) throw new Exit(EXIT.findings, `${found} ${found === 1 ? 'goal' : 'goals'} missed`);
    });
  insidia
    .command('check')
    .description('whether a document is valid, what can be told without running it, and with --runs whether its brief is met')
    .argument('<file>', 'project document, or - for standard input')
    .option('--strict', 'exit 1 when a problem is neither mended nor accepted')
    .option('-n, --runs <n>', 'judge the brief on so many runs a cell; exit 1 when a goal is missed', number)
    .option('-t, --tier <id...>', 'judge at these tiers only (default: all)')
    .option('-s, --skill <id...>', 'judge at these skills only (default: all)')
    .addOption(new Option('-f, --format <format>', 'how to print').choices(['text', 'json', 'junit']).default('text'))
    .action(async (file: string, options: CheckOptions) => {
      const [{ readProject }, { check }] = await Promise.all([import('./input.js'), import('./check.js')]);
      const { text, problems, missed } = check(readProject(file), options, report);
      write(text);
      const found = [
        ...(options.strict && problems > 0 ? [`${problems} ${problems === 1 ? 'problem' : 'problems'}`] : []),
        ...(missed > 0 ? [`${missed} ${missed === 1 ? 'goal' : 'goals'} missed`] : []),
      ];
      if (found.length) throw new Exit(EXIT.findings, found.join(', '));
    });
  insidia
    .command('report')
    .description('one page for a review meeting as HTML: verdicts of the brief, board, pacing and findings')
    .argument('<file>', 'project document, or - for standard input')
    .option('-n, --runs <n>', 'how many runs a cell', number, 200)
    .option('-s, --skill <id>', 'skill of the simulated player (default: the one that most goals speak of)')
    .option('--style <id>', 'play style of the simulated player')
    .option('--players <n>', 'how many of the party take part in encounters, 1 to 8', number)
    .action(async (file: string, options: ReportRunOptions) => {
      const [{ readProject }, { reportOf }] = await Promise.all([import('./input.js'), import('./report.js')]);
      write(reportOf(readProject(file), options, new Date().toISOString().slice(0, 10), report));
    });
  insidia
    .command('effective')
    .description('print a unit’s numbers as a tier, a skill or a style makes them, each with its chain')
    .argument('<file>', 'project document, or - for standard input')
    .requiredOption('-u, --unit <id>', 'unit or linked variant')
    .option('-t, --tier <id>', 'difficulty tier')
    .option('-s, --skill <id>', 'skill of the simulated player')
    .option('--style <id>', 'play style of the simulated player')
    .option('-e, --encounter <id>', 'encounter whose tweaks by party size count')
    .option('--players <n>', 'how many of its party take part, 1 to 8', number)
    .option('--changed', 'only numbers that something changes')
    .addOption(new Option('-f, --format <format>', 'how to print').choices(['text', 'json']).default('text'))
    .action(async (file: string, options: EffectiveOptions) => {
      const [{ readProject }, { effective }] = await Promise.all([import('./input.js'), import('./effective.js')]);
      write(effective(readProject(file), options));
    });
  insidia
    .command('turns')
    .argument('<file>', 'project document, or - for standard input')
    .description('print the document with a fight of it in turns: what says nothing of turns yet is derived from seconds and metres')
    .requiredOption('-e, --encounter <id>', 'encounter that is to take turns')
    .option('--round <s>', 'seconds that a round stands for', number, 2)
    .option('--cell <m>', 'metres that a cell stands for', number, 1)
    .action(async (file: string, options: TurnsOptions) => {
      const [{ readProject }, { turns }] = await Promise.all([import('./input.js'), import('./turns.js')]);
      write(turns(readProject(file), options));
    });
  insidia
    .command('schema')
    .description('print the JSON Schema of the project document')
    .action(async () => {
      const { projectSchema } = await import('@insidia/core/schema');
      write(JSON.stringify(projectSchema(), null, 2) + '\n');
    });
  return insidia;
}

/**
 * Runs a command line.
 * @param write what it prints; @param say what goes wrong; @param report progress
 * @returns the exit code
 */
export async function runCommand(
  argv: readonly string[],
  write: (text: string) => void,
  say: (text: string) => void,
  report: (text: string) => void,
): Promise<number> {
  try {
    await program(write, say, report).parseAsync(argv);
    return EXIT.ok;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? EXIT.ok : EXIT.usage;
    if (!(error instanceof Exit)) throw error;
    say(error.message + '\n');
    return error.code;
  }
}

/** The same for a terminal; the exit code is set, output in flight is not cut off. */
export async function main(argv: readonly string[]): Promise<void> {
  const terminal = process.stderr.isTTY;
  for (const stream of [process.stdout, process.stderr]) stream.on('error', endQuietly);
  process.exitCode = await runCommand(
    argv,
    (text) => void process.stdout.write(text),
    (text) => void process.stderr.write(text),
    (text) => void (terminal && process.stderr.write(`\r${text} `)),
  );
  if (terminal && process.exitCode === EXIT.ok) process.stderr.write('\r\x1b[K');
}

/** Whoever read the output has had enough of it (`| head`): that is no failure of this program's. */
function endQuietly(error: NodeJS.ErrnoException): void {
  if (error.code !== 'EPIPE') throw error;
  process.exit();
}
