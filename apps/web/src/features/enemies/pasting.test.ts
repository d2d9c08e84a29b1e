import { describe, expect, test } from '@jest/globals';
import { type Project, type Unit, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Copied } from './copied';
import { pasting } from './pasting';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const unit = (id: string): Unit => demo().units.find((one) => one.id === id)!;
const copy = (id: string, kind: 'attack' | 'state', part: string): Copied =>
  ({
    kind,
    from: unit(id).name,
    value: (kind === 'attack' ? unit(id).attacks : unit(id).states).find((one) => one.id === part)!,
  }) as Copied;
/** The unit after pasting; the whole project must still be sound. */
const pasted = (clip: Copied, into: string) => {
  const project = demo();
  const own = project.units.find((one) => one.id === into)!;
  const { how, lines, lost } = pasting(clip, structuredClone(own));
  how(own);
  parseProject(structuredClone(project));
  return { own, lines, lost };
};

describe('pasting a part of a unit', () => {
  test('an attack that is new comes into the choice; what it refers to and is not there is left out and said', () => {
    const { own, lines, lost } = pasted(copy('briar-hound', 'attack', 'bite-one'), 'mulcher');
    expect(own.attacks.map(({ id }) => id)).toEqual(['slam', 'bite-one']);
    expect(own.attacks[1].next).toBeUndefined();
    expect(own.choice.priorities.at(-1)!.entries.at(-1)).toEqual({ attack: 'bite-one', weight: 1 });
    expect(lines).toEqual(['First bite: added', 'choice: it comes into the last priority']);
    expect(lost).toEqual(['follow-up attack bite-two']);
  });

  test('an attack of a name that is there shows each number that would change, and keeps its id', () => {
    const clip = copy('clipper', 'attack', 'bite');
    clip.value = { ...clip.value, id: 'other', beat: { ...(clip.value as Unit['attacks'][0]).beat, cooldown: 9 } } as never;
    const { own, lines } = pasted(clip, 'clipper');
    expect(lines).toEqual(['Bite: Cooldown 1.6 s → 9 s']);
    expect(own.attacks.map(({ id }) => id)).toEqual(['bite']);
  });

  test('a state loses its ways to states that are not there', () => {
    const { own, lost } = pasted(copy('thistlejack', 'state', 'keep-band'), 'mulcher');
    expect(own.states.at(-1)).toMatchObject({ id: 'keep-band', leaves: [] });
    expect(lost).toEqual(['leaves to close-in', 'leaves to back-off', 'leaves to hesitate']);
  });

  test('a choice keeps only the entries whose attacks are there', () => {
    const { own, lost } = pasted({ kind: 'choice', from: 'Thistlejack', value: unit('thistlejack').choice }, 'clipper');
    expect(own.choice.priorities[0].entries).toEqual([]);
    expect(lost).toEqual(['entries attack kick', 'entries attack quill-fan', 'entries attack quill']);
  });

  test('senses are shown number by number', () => {
    const { own, lines } = pasted({ kind: 'senses', from: 'Briar Hound', value: unit('briar-hound').senses }, 'clipper');
    expect(own.senses).toEqual(unit('briar-hound').senses);
    expect(lines).toContain('Hearing 0 m → 5 m');
  });
});
