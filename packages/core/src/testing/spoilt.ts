/** The demo with something spoilt in it, and what inspection finds of that. */
import { editUnit } from '../model/edit';
import type { Lens } from '../model/effective';
import type { Project } from '../model/project';
import type { Unit } from '../model/unit';
import { demoProject } from './demo';
import { type Warning } from '../analysis/warning';
import { inspect } from '../analysis/inspection/inspect';

export type Spoil = (project: Project) => Project | void;
export const spoilUnit =
  (id: string, change: (unit: Unit) => void): Spoil =>
  (project) =>
    editUnit(project, id, change);
export const attack = (unit: Unit, id: string) => unit.attacks.find((one) => one.id === id)!;
export const state = (unit: Unit, id: string) => unit.states.find((one) => one.id === id)!;
export const encounter = (project: Project, id: string) => project.encounters.find((one) => one.id === id)!;

export const spoilt = (spoil: Spoil): Project => {
  const project = demoProject();
  return spoil(project) ?? project;
};
export const found = (project: Project, rule: string, path: string, lens: Lens = {}): Warning | undefined =>
  inspect(project, lens).find((warning) => warning.rule === rule && warning.path === path);
