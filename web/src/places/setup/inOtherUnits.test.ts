import { expect, it } from 'vitest';
import { usualAnswers } from '#core/shop/startingShop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';
import { inOtherUnits } from './inOtherUnits.ts';

it('what is as usual becomes what is usual in the other units, machine by machine; what somebody said stays, there and back', () => {
  const { machines } = usualFigures('metric');
  const metric = { ...usualAnswers('metric'), jointer: machines.jointer.width, drumSander: 406.4, name: 'Shed' };
  const inch = inOtherUnits(metric, 'inch');
  const inches = usualFigures('inch');
  expect(inch).toMatchObject({
    system: 'inch',
    name: 'Shed',
    jointer: inches.machines.jointer.width,
    planer: inches.machines.planer.width,
    drumSander: 406.4,
    clamps: [{ opening: inches.clamp.opening }],
  });
  expect(inOtherUnits(inch, 'metric')).toEqual({ ...metric, drumSander: machines.drumSander.width });
  expect(inOtherUnits({ ...metric, planer: null, clamps: [] }, 'inch')).toMatchObject({ planer: null, clamps: [] });
});
