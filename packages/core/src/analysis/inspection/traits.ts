/** Traits that nobody has, that do nothing, or that leave a shield as thin as it was. */
import { pointerOf, pointerSteps } from '../../model/pointer';
import type { Project } from '../../model/project';
import type { Trait } from '../../model/trait';
import type { FieldTweak } from '../../model/tweak';
import { unitHeads } from '../../model/variants';
import { type TraitTouch, bearersOf, traitOn } from '../bearers';
import { Unit } from '../../model/unit';
import { tweakWords } from '../../model/words';
import type { Warning } from '../warning';
import { amount, idle } from './context';

export function traits(project: Project): Warning[] {
  return project.traits.flatMap((trait) => ofTrait(project, trait));
}

function ofTrait(project: Project, trait: Trait): Warning[] {
  const at = (...steps: (string | number)[]) => pointerOf('traits', trait.id, ...steps.map(String));
  const causes = [at('tweaks')];
  const bearers = bearersOf(project, trait.id);
  if (!bearers.length) {
    const message = `nobody is given ${trait.name}`;
    return [
      {
        rule: 'traitIdle',
        severity: 'notice',
        path: at(),
        message,
        mend: 'give it to a unit, a group, a wave or at a tier, or take it out',
      },
    ];
  }
  const heads = new Map(unitHeads(project).map((head) => [head.id, head.name]));
  const touches = bearers.map((id) => ({ id, name: heads.get(id)!, ...traitOn(project, trait, id, {}) }));
  const found: Warning[] = trait.tweaks.flatMap((tweak, index): Warning[] => {
    const what = tweakWords(Unit, tweak);
    const fix = { name: 'take it out', list: 'traits', id: trait.id, index } as const;
    const nobody = touches.every(({ missing }) => missing.includes(index));
    if (nobody)
      return [
        {
          rule: 'tweakOfNothing',
          severity: 'problem',
          path: at('tweaks', index),
          message: `${what} of ${trait.name} changes nobody: none of those who are given it has that number`,
          mend: 'change what it speaks of',
          causes,
          fixes: [fix],
        },
      ];
    if (!idle(tweak) && !(typeof tweak.value !== 'number' && touches.every((touch) => leaves(touch, tweak)))) return [];
    return [
      {
        rule: 'tweakVoid',
        severity: 'problem',
        path: at('tweaks', index),
        message: `${what} changes nothing`,
        mend: 'give it another value',
        causes,
        fixes: [fix],
      },
    ];
  });
  for (const { id, name, touched, spared } of touches) {
    const health = touched.find(({ path }) => path === '/health/max');
    const shield = spared.find(({ path }) => path === '/shield/max');
    if (!health || !shield || health.after === health.before) continue;
    found.push({
      rule: 'shieldNotScaled',
      severity: 'notice',
      path: pointerOf('units', id, 'shield', 'max'),
      message: `${trait.name} scales the health of ${name} (${amount(Number(health.before))} → ${amount(Number(health.after))}) but not its shield of ${amount(shield.value)}`,
      mend: `let ${trait.name} scale the shield too`,
      causes,
    });
  }
  return found;
}

/** Whether nothing that a tweak speaks of comes to something else. */
const leaves = ({ touched }: TraitTouch, { path }: FieldTweak): boolean =>
  touched.every((one) => !leadsTo(path, one.path) || one.before === one.after);

/** Whether a path with `*` speaks of a place. */
function leadsTo(path: string, place: string): boolean {
  const steps = pointerSteps(place);
  const wanted = pointerSteps(path);
  return steps.length === wanted.length && wanted.every((step, i) => step === '*' || step === steps[i]);
}
