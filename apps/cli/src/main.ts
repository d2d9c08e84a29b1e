/** insidia: simulate, trace, check, report and schema, for a terminal or a build pipeline. */
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { projectSchema } from '@insidia/core/schema';
import { type CheckOptions, check } from './check';
import { EXIT, Exit, readProject } from './input';
import { type ReportRunOptions, reportOf } from './report';
import { type SimulateOptions, simulate } from './simulate';
import { type TraceOptions, traceRun } from './trace';

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
    .option('--copies <n>', 'enemies in the duel, 1 to 12', number, 1)
    .option('--distance <m>', 'metres between edges at the start of the duel', number, 12)
    .option('-t, --tier <id>', 'difficulty tier')
    .option('-s, --skill <id>', 'skill of the simulated player')
    .option('--style <id>', 'play style of the simulated player')
    .option('--players <n>', 'how many of the party take part, 1 to 4', number)
    .option('--step <s>', 'step of movement and senses in seconds', number);
}

export function program(write: (text: string) => void, report: (text: string) => void): Command {
  const insidia = new Command('insidia').description('Simulate and check enemy encounters').version('0.1.0').exitOverride();
  subject(insidia.command('simulate'))
    .description('run an encounter or a duel many times and print what it measures')
    .option('-n, --runs <n>', 'how many runs', number, 200)
    .option('--seed <n>', 'first seed', number, 1)
    .addOption(new Option('-f, --format <format>', 'how to print').choices(['table', 'json', 'csv']).default('table'))
    .action((file: string, options: SimulateOptions) => write(simulate(readProject(file), options, report)));
  subject(insidia.command('trace'))
    .description('run one seed and print what happened, event by event, with the reasons for every choice')
    .option('--seed <n>', 'seed', number, 1)
    .option('--no-positions', 'leave out where everybody is at every step')
    .option('--no-reasons', 'leave out the reasons')
    .addOption(new Option('-f, --format <format>', 'JSON lines, or sentences').choices(['jsonl', 'text']).default('jsonl'))
    .action((file: string, options: TraceOptions) => write(traceRun(readProject(file), options)));
  insidia
    .command('check')
    .description('whether a document is valid, what can be told without running it, and with --runs whether its brief is met')
    .argument('<file>', 'project document, or - for standard input')
    .option('--strict', 'exit 1 when a problem is neither mended nor accepted')
    .option('-n, --runs <n>', 'judge the brief on so many runs a cell; exit 1 when a goal is missed', number)
    .option('-t, --tier <id...>', 'judge at these tiers only (default: all)')
    .option('-s, --skill <id...>', 'judge at these skills only (default: all)')
    .addOption(new Option('-f, --format <format>', 'how to print').choices(['text', 'json', 'junit']).default('text'))
    .action((file: string, options: CheckOptions) => {
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
    .option('--players <n>', 'how many of the party take part in encounters, 1 to 4', number)
    .action((file: string, options: ReportRunOptions) =>
      write(reportOf(readProject(file), options, new Date().toISOString().slice(0, 10), report)),
    );
  insidia
    .command('schema')
    .description('print the JSON Schema of the project document')
    .action(() => write(JSON.stringify(projectSchema(), null, 2) + '\n'));
  return insidia;
}

/** Runs a command line; the exit code is set, output in flight is not cut off. */
export function main(argv: readonly string[]): void {
  const terminal = process.stderr.isTTY;
  const report = (text: string) => terminal && process.stderr.write(`\r${text} `);
  try {
    program((text) => process.stdout.write(text), report).parse(argv);
    if (terminal) process.stderr.write('\r\x1b[K');
  } catch (error) {
    if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? EXIT.ok : EXIT.usage;
    else if (error instanceof Exit) {
      process.stderr.write(error.message + '\n');
      process.exitCode = error.code;
    } else throw error;
  }
}
