import { Button, Checkbox, Select, SegmentedControl } from '@mantine/core';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { USUAL_GLUES } from '#core/shop/gluing.ts';
import {
  HOURS,
  hoursIds,
  startingAnswersSchema,
  startingShop,
  usualAnswers,
  type StartingAnswers,
} from '#core/shop/startingShop.ts';
import { CROSSCUT_NAMES, RIP_NAMES } from '#core/steps/toolWays.ts';
import { api } from '../../data/api.ts';
import { useBoards, useRack, useShop } from '../../data/queries.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { TextField } from '../../quantities/plainFields.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { StartingClamps } from './StartingClamps.tsx';
import { StartingWays } from './StartingWays.tsx';
import { WidthOrNone } from './WidthOrNone.tsx';
import { inOtherUnits } from './inOtherUnits.ts';
import classes from './SetupPlace.module.css';

const HAND_TOOLS = { planes: 'Hand planes', beltSander: 'Belt sander', orbitalSander: 'Orbital sander' } as const;

/** One short page that asks what decides plans. The shop that was in use is set aside whole; the new one begins with nothing in its rack. */
export function SetupPlace() {
  const { display, setDisplay } = useDisplay();
  const shop = useShop();
  const rack = useRack();
  const boards = useBoards();
  const anything = [rack.data, boards.data].some((list) => list && list.length > 0);
  const [answers, setAnswers] = useState(() => usualAnswers(display.system));
  const [busy, setBusy] = useState(false);
  const set = (change: Partial<StartingAnswers>) => setAnswers((a) => ({ ...a, ...change }));
  const setSystem = (system: StartingAnswers['system']) => {
    setDisplay({ system });
    setAnswers((a) => inOtherUnits(a, system));
  };
  const form = useRef<HTMLDivElement>(null);
  const begin = async () => {
    // What was typed and cannot be read has not become an answer: it is not passed over.
    const wrong = form.current?.querySelector<HTMLElement>('[aria-invalid="true"]');
    if (wrong) {
      wrong.focus();
      showProblem(new Error('One answer cannot be read; it is marked. Put it right, or take it back with Escape.'));
      return;
    }
    const read = startingAnswersSchema.safeParse(answers);
    if (!read.success) {
      showProblem(new Error(fieldProblems(read.error)[0]?.message ?? 'An answer is not valid.'));
      return;
    }
    if (!shop.data) return;
    setBusy(true);
    try {
      await api.beginShop(shop.data.version, startingShop(read.data));
      // Everything on this page belongs to the shop that went aside.
      window.location.assign('/rack');
    } catch (error) {
      showProblem(error);
      void shop.refetch();
      setBusy(false);
    }
  };
  return (
    <div className={classes.page}>
      <header>
        <h1>Set up my own shop</h1>
        <p>
          What decides plans, asked once; all of it, and much more, can be changed in the Shop at any time.{' '}
          {anything && <>“{shop.data?.shop.name}” is set aside whole, and can be taken up again.</>}
        </p>
      </header>
      <div className={classes.columns}>
        <div ref={form} className={classes.form}>
          <fieldset>
            <legend>Name and units</legend>
            <div className={classes.fields}>
              <TextField
                field="Name of the shop"
                value={answers.name}
                schema={startingAnswersSchema.shape.name}
                onCommit={(name) => set({ name })}
              />
              <TextField
                field="Currency"
                value={answers.currency}
                schema={startingAnswersSchema.shape.currency}
                onCommit={(currency) => set({ currency })}
              />
              <div>
                <span className={classes.label} id="setup-units">
                  Rules and figures in
                </span>
                <SegmentedControl
                  aria-labelledby="setup-units"
                  value={answers.system}
                  onChange={setSystem}
                  data={[
                    { value: 'metric', label: 'Millimetres' },
                    { value: 'inch', label: 'Inches' },
                  ]}
                />
              </div>
            </div>
          </fieldset>
          <fieldset>
            <legend>Saws</legend>
            <div className={classes.fields}>
              <Select
                size="sm"
                label="Ripping"
                allowDeselect={false}
                value={answers.saw}
                data={Object.entries(RIP_NAMES).map(([value, label]) => ({ value, label }))}
                onChange={(saw) => saw && set({ saw: saw as StartingAnswers['saw'] })}
              />
              <Select
                size="sm"
                label="Crosscutting"
                allowDeselect={false}
                value={answers.crosscutSaw}
                data={Object.entries(CROSSCUT_NAMES).map(([value, label]) => ({ value, label }))}
                onChange={(saw) => saw && set({ crosscutSaw: saw as StartingAnswers['crosscutSaw'] })}
              />
              <Checkbox
                label="A band saw that resaws"
                checked={answers.bandSaw}
                onChange={(e) => set({ bandSaw: e.currentTarget.checked })}
              />
            </div>
          </fieldset>
          <fieldset>
            <legend>Making wood flat</legend>
            <div className={classes.machines}>
              <WidthOrNone machine="planer" answers={answers} onChange={set}>
                <SegmentedControl
                  size="xs"
                  aria-label="Cutter head"
                  value={answers.head}
                  data={[
                    { value: 'straight', label: 'Straight knives' },
                    { value: 'helical', label: 'Helical' },
                  ]}
                  onChange={(head) => set({ head })}
                />
              </WidthOrNone>
              <WidthOrNone machine="jointer" answers={answers} onChange={set} />
              <WidthOrNone machine="drumSander" answers={answers} onChange={set} />
            </div>
          </fieldset>
          <fieldset>
            <legend>Edges and sanding</legend>
            <div className={classes.checks}>
              {Object.entries(HAND_TOOLS).map(([tool, label]) => (
                <Checkbox
                  key={tool}
                  label={label}
                  checked={answers.handTools[tool as keyof typeof HAND_TOOLS]}
                  onChange={(e) => set({ handTools: { ...answers.handTools, [tool]: e.currentTarget.checked } })}
                />
              ))}
              <Checkbox
                label="Router"
                checked={answers.router}
                onChange={(e) => set({ router: e.currentTarget.checked })}
              />
            </div>
          </fieldset>
          <fieldset>
            <legend>Clamps</legend>
            <StartingClamps answers={answers} onChange={set} />
          </fieldset>
          <fieldset>
            <legend>Glue and hours</legend>
            <div className={classes.fields}>
              <Select
                size="sm"
                label="Glue"
                allowDeselect={false}
                value={answers.glue}
                data={USUAL_GLUES.map((g) => ({ value: g.id, label: `${g.name} (${g.class})` }))}
                onChange={(glue) => glue && set({ glue })}
              />
              <Select
                size="sm"
                label="Work is done"
                allowDeselect={false}
                value={answers.hours}
                data={hoursIds.map((id) => ({ value: id, label: HOURS[id].name }))}
                onChange={(hours) => hours && set({ hours: hours })}
              />
            </div>
          </fieldset>
          <div className={classes.buttons}>
            <Button loading={busy} disabled={!shop.data} onClick={() => void begin()}>
              Begin with an empty rack
            </Button>
            <Button variant="default" component={Link} to="/boards">
              Not now
            </Button>
          </div>
        </div>
        <StartingWays answers={answers} />
      </div>
    </div>
  );
}
