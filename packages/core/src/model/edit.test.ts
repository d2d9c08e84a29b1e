import { describe, expect, test } from '@jest/globals';
import { blankAttack, blankState, blankUnit } from './blank';
import { setInOrder } from './edit';
import { orderProblems } from './unit-relations';

describe('a number that is set beside another that it may not pass', () => {
  const unit = () => {
    const made = blankUnit('one', 'One', 'enemy');
    made.states.push({ ...blankState('band', 'Band', 'band'), near: 4, far: 8 });
    return made;
  };

  test.each([
    ['/body/eyeHeight', 3, '/body/height', 3],
    ['/body/height', 1, '/body/eyeHeight', 1],
    ['/choice/pause/min', 2, '/choice/pause/max', 2],
    ['/states/band/near', 9, '/states/band/far', 9],
    ['/states/band/far', 3, '/states/band/near', 3],
  ])('%s at %d takes %s along', (path, value, other, moved) => {
    const made = unit();
    setInOrder(made, path, value);
    const at = (pointer: string) =>
      pointer
        .split('/')
        .slice(1)
        .reduce<any>((one, step) => (Array.isArray(one) ? one.find(({ id }) => id === step) : one[step]), made);
    expect([at(path), at(other)]).toEqual([value, moved]);
    expect(orderProblems(made, [])).toEqual([]);
  });

  test('leaves it where it does not pass it, and where there is none', () => {
    const made = unit();
    setInOrder(made, '/states/band/near', 8);
    setInOrder(made, '/body/eyeHeight', 0.5);
    setInOrder(made, '/health/max', 0.5);
    expect([made.states[0].far, made.body.height, made.health.max]).toEqual([8, 1.7, 0.5]);
    made.attacks.push({ ...blankAttack('shot', 'Shot', 'hitscan'), aim: { near: 0.4, far: 0.6, weakPointShare: 0 } });
    setInOrder(made, '/attacks/shot/aim/far', 0.2);
    expect(made.attacks[0].aim).toEqual({ near: 0.4, far: 0.2, weakPointShare: 0 });
    setInOrder(made, '/attacks/shot/aim/near', 0.1);
    expect(made.attacks[0].aim).toEqual({ near: 0.1, far: 0.2, weakPointShare: 0 });
    setInOrder(made, '/states/band/far', undefined);
    setInOrder(made, '/states/band/near', 50);
    expect(made.states[0]).toMatchObject({ near: 50 });
    expect(made.states[0].far).toBeUndefined();
  });
});
