/**
 * npm run reference: writes the reference part of docs/file-format.md from what the classes of the document say of
 * themselves. With --check it only says whether that part is fresh.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { ROOT } from './system.mjs';

const FILE = join(ROOT, 'docs/file-format.md');
const MARK = '<!-- From here on written by `npm run reference`. -->';

const require = createRequire(import.meta.url);
require('./jest/sources.cjs');
const core = require('../packages/core/src/index.ts');
const { DELIVERIES, DELIVERY_NAMES, GOAL_MEASURES, BAND_MEASURES, Project, SUBJECTS, SUBJECT_NAMES, classAbout, classFields } = core;

/** Classes in the order in which the document leads to them. */
function classesFrom(type, found = []) {
  if (found.includes(type)) return found;
  found.push(type);
  const { groups, lists } = classFields(type);
  for (const field of classFields(type).said.keys()) {
    const inner = groups.get(field) ?? lists.get(field);
    if (inner) classesFrom(inner(), found);
  }
  return found;
}

const plain = (text) => String(text).replaceAll('|', '\\|').replaceAll('\n', ' ');
const list = (items, last) => (items.length > 1 ? `${items.slice(0, -1).join(', ')} ${last} ${items.at(-1)}` : (items[0] ?? ''));
const code = (text) => `\`${text}\``;
const anchor = (name) => `[${name}](#${name.toLowerCase()})`;

function kindOf(type, field) {
  const { kinds, groups, lists, references } = classFields(type);
  const group = groups.get(field);
  if (group) return anchor(group().name);
  const item = lists.get(field);
  const kind = kinds.get(field);
  if (item) return `list of ${anchor(item().name)}, up to ${kind.limit}`;
  const reference = references.get(field);
  const to = reference && [...new Set(Array.isArray(reference.to) ? reference.to : Object.values(reference.to.kinds))];
  const many = kind?.kind === 'words';
  if (to)
    return `${many ? 'names of: ' : 'name of: '}${list(
      to.map((one) => TARGETS[one] ?? one),
      'or',
    )}`;
  if (!kind) return 'a value';
  switch (kind.kind) {
    case 'number': {
      const { unit, min, max, whole } = kind.info;
      return `${whole ? 'whole ' : ''}number${unit && ` in ${unit}`}, ${min} to ${max}`;
    }
    case 'word':
    case 'someOf': {
      const words = kind.words.map((word) => (kind.called[word] === word ? code(word) : `${code(word)} (${kind.called[word]})`));
      return kind.kind === 'word' ? list(words, 'or') : `some of ${list(words, 'and')}`;
    }
    case 'yesNo':
      return 'yes or no';
    case 'text':
    case 'name':
      return `text, up to ${kind.limit} characters`;
    case 'id':
      return 'id';
    default:
      return 'a value';
  }
}

const TARGETS = { spawnPoint: 'spawn point', slots: 'pool of slots', ground: 'kind of ground', damageType: 'kind of damage' };

function rowOf(type, field) {
  const { said, optional, references, groups, lists } = classFields(type);
  const { about, label, when, needed } = said.get(field);
  const value = new type()[field];
  const given =
    value === undefined
      ? optional.has(field)
        ? 'may be absent'
        : 'must be given'
      : groups.has(field) || lists.has(field)
        ? ''
        : `else ${code(JSON.stringify(value))}`;
  const where = (fields) =>
    list(
      Object.entries(fields).map(([of, values]) => `${code(of)} is ${list(values.map(code), 'or')}`),
      'and',
    );
  const applies =
    when &&
    `${needed === true ? 'needed where' : 'where'} ${where(when)}${needed && needed !== true ? `, needed where ${where(needed)}` : ''}`;
  const says = about ?? (label && label.toLowerCase() !== field.toLowerCase() ? label.toLowerCase() : '');
  const rest = [given, applies, references.get(field)?.loose && 'may name what is not there'].filter(Boolean).join('; ');
  return `- ${code(field)}: ${kindOf(type, field)}${rest && ` (${rest})`}${says && `: ${says}`}`;
}

function classPart(type) {
  const rows = [...classFields(type).said.keys()].map((field) => rowOf(type, field));
  return [`### ${type.name}`, '', classAbout(type) ?? '', '', ...rows, ''].join('\n');
}

const subjects = SUBJECT_NAMES.map((name) => {
  const { label, unit, of, ofOptional, within, asked, encounter } = SUBJECTS[name];
  const needs = [
    of && `${code('of')}: ${TARGETS[of] ?? of}${ofOptional ? ' (absent: any)' : ''}`,
    within && `${code('within')}: ${within}`,
  ].filter(Boolean);
  const how = {
    number: `number${unit && ` in ${unit}`}, below or above`,
    yesNo: 'yes or no',
    chance: 'chance from 0 to 1',
    group: 'parts',
  }[asked];
  return `| ${code(name)} | ${plain(label)} | ${how} | ${needs.join('; ')} | ${encounter ? 'yes' : ''} |`;
});
const deliveries = DELIVERY_NAMES.map((name) => `| ${code(name)} | ${DELIVERIES[name].called} | ${plain(DELIVERIES[name].about)} |`);
const measures = BAND_MEASURES.map((name) => {
  const { label, unit, about, of, usual } = GOAL_MEASURES[name];
  return `| ${code(name)} | ${plain(label)} | ${unit} | ${list([...of], 'or')} | ${usual} | ${plain(about)} |`;
});

const reference = [
  MARK,
  '',
  '## Reference',
  '',
  'Beside each field: what it holds, what it is unless it is given, when it has something to say.',
  '',
  ...classesFrom(Project).map(classPart),
  '### What a condition may ask',
  '',
  '| subject | what | how | beside it | an encounter may ask |',
  '| --- | --- | --- | --- | --- |',
  ...subjects,
  '',
  '### Deliveries',
  '',
  '| delivery | called | what it does |',
  '| --- | --- | --- |',
  ...deliveries,
  '',
  '### What a brief may speak of',
  '',
  '| measure | called | unit | of | usually its | what |',
  '| --- | --- | --- | --- | --- | --- |',
  ...measures,
  '',
].join('\n');

const before = readFileSync(FILE, 'utf8');
const written = before.includes(MARK) ? before.slice(0, before.indexOf(MARK)) : `${before.trimEnd()}\n\n`;
const after = await format(written + reference, { ...(await resolveConfig(FILE)), filepath: FILE });
if (process.argv.includes('--check')) {
  if (after !== before) {
    console.error('docs/file-format.md does not say what the classes say: npm run reference writes it anew');
    process.exit(1);
  }
} else writeFileSync(FILE, after);
