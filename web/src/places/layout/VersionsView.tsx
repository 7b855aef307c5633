import { Button, Menu, TextInput } from '@mantine/core';
import { IconDots } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import { useMemo } from 'react';
import { GREATEST_VERSION_COUNT, type Board, type BoardVersion } from '#core/board/board.ts';
import { checkPlan } from '#core/checks/checkPlan.ts';
import { makePlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { Length } from '../../quantities/Length.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { asBoard, nextVersionName, setAside, workOn } from './versions.ts';
import { Measured } from '../../quantities/Measured.tsx';
import classes from './VersionsView.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** Room for one drawing, pixels. */
const ROOM: [number, number] = [264, 190];

/** The layouts of this board side by side at one scale, with their figures; one is worked on, the others are set aside. */
export function VersionsView({ oiled }: { oiled: boolean }) {
  const { board, session, input } = useSettledBoard();
  const all = [board, ...board.versions.map((v) => asBoard(board, v))];
  const scale = fitScale([Math.max(...all.map((b) => b.length)), Math.max(...all.map((b) => b.width))], ROOM, 1);
  const add = () => {
    const added = setAside(board, nextVersionName(board.versions), nanoid(10));
    if (added) session.edit(() => added);
    else showProblem(new Error(`At most ${GREATEST_VERSION_COUNT} versions can be set aside; remove one first.`));
  };
  return (
    <section className={classes.versions} aria-label="Versions of this board">
      <header>
        <p>
          {all.length === 1
            ? 'Set the layout aside as it is, then change it freely: both stay here to be compared.'
            : `${all.length} versions, all drawn at ${scaleWords(scale)}. One is worked on; the plan and the other places follow it.`}
        </p>
        <Button size="xs" onClick={add} disabled={stripsOf(board).length === 0}>
          Set this one aside too
        </Button>
      </header>
      <ul>
        <VersionCard title="Worked on now" board={board} input={input} scale={scale} oiled={oiled} />
        {board.versions.map((version) => (
          <VersionCard
            key={version.id}
            version={version}
            board={asBoard(board, version)}
            input={input}
            scale={scale}
            oiled={oiled}
            onRename={(name) =>
              session.edit((b) => ({
                ...b,
                versions: b.versions.map((v) => (v.id === version.id ? { ...v, name } : v)),
              }))
            }
            onWork={() => session.edit((b) => workOn(b, version, nextVersionName(b.versions)))}
            onKeep={() => session.edit((b) => ({ ...asBoard(b, version), versions: [] }))}
            onRemove={() => session.edit((b) => ({ ...b, versions: b.versions.filter((v) => v.id !== version.id) }))}
          />
        ))}
      </ul>
    </section>
  );
}

interface VersionCardProps {
  title?: string;
  version?: BoardVersion;
  board: Board;
  input: ReturnType<typeof useSettledBoard>['input'];
  scale: number;
  oiled: boolean;
  onRename?(name: string): void;
  onWork?(): void;
  onKeep?(): void;
  onRemove?(): void;
}

function VersionCard({
  title,
  version,
  board,
  input,
  scale,
  oiled,
  onRename,
  onWork,
  onKeep,
  onRemove,
}: VersionCardProps) {
  const { plan, stops, cautions } = useMemo(() => {
    const mine = { ...input, board };
    const made = makePlan(mine);
    const findings = checkPlan(made, mine);
    return {
      plan: made,
      stops: findings.filter((f) => f.severity === 'stop').length,
      cautions: findings.filter((f) => f.severity === 'caution').length,
    };
  }, [input, board]);
  const { materials, movement } = plan;
  const kept = plan.cutting.leftovers.filter((l) => l.kept).length;
  return (
    <li className={classes.card} data-current={version === undefined || undefined}>
      <BoardMiniature board={board} input={input} scale={scale} oiled={oiled} />
      {version ? (
        <TextInput
          size="xs"
          aria-label="Name of the version"
          defaultValue={version.name}
          key={version.name}
          maxLength={60}
          onBlur={(event) =>
            event.currentTarget.value.trim() !== '' &&
            event.currentTarget.value !== version.name &&
            onRename?.(event.currentTarget.value.trim())
          }
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      ) : (
        <b>{title}</b>
      )}
      <span className={classes.size}>
        <BoardSizeLine board={board} />
      </span>
      <dl>
        <dt>Wood taken</dt>
        <dd>{(materials.taken.cubicMetres * 1000).toFixed(2)} dm³</dd>
        <dt>In the board</dt>
        <dd>{materials.yield === null ? 'none' : `${Math.round(100 * materials.yield)} %`}</dd>
        <dt>Offcuts kept</dt>
        <dd>{kept}</dd>
        <dt>Cost each</dt>
        <dd>
          {materials.costEach.toFixed(2)} {materials.currency}
          {materials.unpriced.length > 0 && ' +'}
        </dd>
        <dt>Weight</dt>
        <dd>
          {materials.gramsEach === null ? (
            'not known'
          ) : (
            <Measured quantity="weight" value={materials.gramsEach / 1000} />
          )}
        </dd>
        <dt>Glue lines</dt>
        <dd>{Math.max(0, stripsOf(board).length - 1)}</dd>
        <dt>Moves by</dt>
        <dd>
          <Length mm={movement.across} />
        </dd>
        <dt>To mind</dt>
        <dd data-stop={stops > 0 || undefined}>
          {stops > 0 ? `${stops} stop${stops > 1 ? 's' : ''}, ` : ''}
          {cautions} {cautions === 1 ? 'caution' : 'cautions'}
        </dd>
      </dl>
      {version && (
        <span className={classes.buttons}>
          <Button size="xs" onClick={onWork}>
            Work on this
          </Button>
          <Menu position="bottom-end">
            <Menu.Target>
              <Button size="xs" variant="default" aria-label={`More for ${version.name}`}>
                <IconDots size={15} />
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={onKeep}>Keep this one, let all others go</Menu.Item>
              <Menu.Item onClick={onRemove}>Remove this version</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </span>
      )}
    </li>
  );
}
