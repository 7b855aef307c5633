import { Button, Checkbox, Popover, Radio, Stack } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { BOARD_HABITS, type BoardHabit } from '#core/board/differences.ts';
import { QUESTIONS, schoolOf, type QuestionId } from '#core/shop/schools.ts';
import { shopSchema, type Habits } from '#core/shop/shop.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import { useShopEdits } from '../data/recordEdits.ts';
import { Length } from '../quantities/Length.tsx';
import { LengthInput } from '../quantities/LengthInput.tsx';
import classes from './HabitButton.module.css';
import { figurePath } from './figurePath.ts';
import { HABIT_WORDS } from './habitWords.ts';

const ofBoard = (habit: keyof Habits): habit is BoardHabit => (BOARD_HABITS as readonly string[]).includes(habit);

/** Says that a habit decided a figure, and changes it on the spot: for this board, or for the shop and so for every board. */
export function HabitButton({ habit }: { habit: keyof Habits }) {
  const { plan, board, session } = useSettledBoard();
  const shop = useShopEdits();
  const own = ofBoard(habit) && board.differs.habits[habit] !== undefined;
  const [forShop, setForShop] = useState(false);
  const toShop = forShop || !ofBoard(habit);
  const commit = (mm: number) => {
    if (toShop) shop.change((s) => ({ ...s, habits: { ...s.habits, [habit]: mm } }));
    else session.edit((b) => ({ ...b, differs: { ...b.differs, habits: { ...b.differs.habits, [habit]: mm } } }));
  };
  const drop = () =>
    session.edit((b) => ({
      ...b,
      differs: {
        ...b.differs,
        habits: Object.fromEntries(Object.entries(b.differs.habits).filter(([key]) => key !== habit)),
      },
    }));
  return (
    <Popover width={290} position="bottom-start" withArrow shadow="md" trapFocus>
      <Popover.Target>
        <button type="button" className={classes.chip}>
          {HABIT_WORDS[habit]}{' '}
          <b>
            <Length mm={plan.shop.habits[habit]} />
          </b>
          {own && ' (this board)'}
        </button>
      </Popover.Target>
      <Popover.Dropdown className={classes.panel}>
        <Stack gap={8}>
          <LengthInput
            field={HABIT_WORDS[habit]}
            mm={plan.shop.habits[habit]}
            schema={shopSchema.shape.habits.shape[habit]}
            onCommit={commit}
          />
          {ofBoard(habit) ? (
            <Checkbox
              label="For the shop: every board follows"
              checked={forShop}
              onChange={(e) => setForShop(e.currentTarget.checked)}
            />
          ) : (
            <p>Stock is shared by all boards: this is the shop&apos;s figure.</p>
          )}
          {own && (
            <Button size="xs" variant="default" onClick={drop}>
              As in the shop again
            </Button>
          )}
          <Link to={figurePath('allowances', HABIT_WORDS[habit])}>Beside the shop&apos;s other allowances</Link>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}

/** Says which school decided how a step is done, with the reason of each, and changes it on the spot. */
export function SchoolButton({ question }: { question: QuestionId }) {
  const { plan, board, session } = useSettledBoard();
  const shop = useShopEdits();
  const [forShop, setForShop] = useState(false);
  const own = board.differs.schools[question] !== undefined;
  const { asks, schools } = QUESTIONS[question];
  const choose = (id: string) => {
    if (forShop) {
      shop.change((s) => ({ ...s, schools: { ...s.schools, [question]: id } }));
      if (own) drop();
    } else
      session.edit((b) => ({ ...b, differs: { ...b.differs, schools: { ...b.differs.schools, [question]: id } } }));
  };
  const drop = () =>
    session.edit((b) => ({
      ...b,
      differs: {
        ...b.differs,
        schools: Object.fromEntries(Object.entries(b.differs.schools).filter(([key]) => key !== question)),
      },
    }));
  return (
    <Popover width={360} position="bottom-start" withArrow shadow="md" trapFocus>
      <Popover.Target>
        <button type="button" className={classes.chip}>
          {asks}: <b>{schoolOf(plan.shop.schools, question).name}</b>
          {own && ' (this board)'}
        </button>
      </Popover.Target>
      <Popover.Dropdown className={classes.panel}>
        <Radio.Group label={asks} value={plan.shop.schools[question]} onChange={choose}>
          <Stack gap={6} mt={6}>
            {schools.map((s) => (
              <Radio key={s.id} value={s.id} label={s.name} description={s.why} />
            ))}
          </Stack>
        </Radio.Group>
        <Checkbox
          mt={10}
          label="For the shop: every board follows"
          checked={forShop}
          onChange={(e) => setForShop(e.currentTarget.checked)}
        />
        {own && (
          <Button mt={8} size="xs" variant="default" onClick={drop}>
            As in the shop again
          </Button>
        )}
        <p>
          <Link to={figurePath('ways', asks)}>Beside the shop&apos;s other ways of working</Link>
        </p>
      </Popover.Dropdown>
    </Popover>
  );
}
