import { nth } from '#core/lists/there.ts';
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useState } from 'react';
import { FEATURE_NAMES, GREATEST_FEATURE_COUNT, type FeatureKind } from '#core/features/feature.ts';
import { isSide, type Side } from '#core/features/edge.ts';
import { boundsOf } from '#core/features/outline.ts';
import type { Solid } from '#core/features/solids.ts';
import { stripTops } from '#core/board/board.ts';
import { listNumbers } from '#core/steps/numberList.ts';
import { STEP_OF } from '#core/checks/featureRoom.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { CornerFields, EdgeFields, type EdgePlace } from './EdgeFields.tsx';
import { FeatureFields } from './FeatureFields.tsx';
import { newFeature } from './featureFields.ts';
import { SideElevation } from './SideElevation.tsx';
import { SectionDrawing } from './SectionDrawing.tsx';
import { freshId, useWorked } from './useWorked.ts';
import { WorkedDrawing } from './WorkedDrawing.tsx';
import classes from './WorkedEditor.module.css';
import { type Strip, stripsOf } from '#core/board/recipe.ts';

/** The finished board with its edges, corners and features: chosen by name or by hand on the drawing, and set beneath it. */
export function BoardWork() {
  const work = useWorked();
  const { board, plan, findings } = useSettledBoard();
  const { now, worked, change } = work;
  const [face, setFace] = useState<'top' | 'bottom'>('top');
  const [chosen, setChosen] = useState('edges');
  const [place, setPlace] = useState<EdgePlace>('all');
  const feature = now.features.find((f) => f.id === chosen);
  const trouble = (step: string) =>
    findings.find((f) => f.at === step && f.accepted === undefined && f.severity !== 'note')?.severity;
  const choose = (id: string) => {
    setChosen(id);
    const found = now.features.find((f) => f.id === id);
    if (found && 'face' in found && !isSide(found.face)) setFace(found.face);
    else if (found?.kind === 'feet') setFace('bottom');
  };
  const add = (kind: FeatureKind) => {
    const made = newFeature(kind, freshId(worked.features, kind), now.size);
    change((w) => ({ ...w, features: [...w.features, made] }));
    setChosen(made.id);
    if ('face' in made && !isSide(made.face)) setFace(made.face);
    else if (kind === 'feet') setFace('bottom');
  };
  const chip = (id: string, label: string, step: string) => (
    <button
      key={id}
      type="button"
      className={classes.chip}
      aria-pressed={id === (feature?.id ?? (chosen === 'corners' ? 'corners' : 'edges'))}
      data-trouble={trouble(step)}
      onClick={() => choose(id)}
    >
      {label}
    </button>
  );
  const sectionSide: Side =
    place !== 'all'
      ? place
      : feature?.kind === 'mark' && isSide(feature.face)
        ? feature.face
        : feature && 'on' in feature && feature.on === 'ends'
          ? 'left'
          : 'far';
  return (
    <>
      <div className={classes.tools} role="toolbar" aria-label="What is worked into the board">
        <SegmentedControl
          size="xs"
          aria-label="Side of the board"
          value={face}
          onChange={(v) => setFace(v)}
          data={[
            { value: 'top', label: 'Show side' },
            { value: 'bottom', label: 'Underside' },
          ]}
        />
        {chip('edges', 'Edges', 'edges')}
        {chip('corners', 'Corners', 'corners')}
        {now.features.map((f, i) => {
          const before = now.features.slice(0, i).filter((one) => one.kind === f.kind).length;
          return chip(
            f.id,
            f.kind === 'mark' ? f.name : `${FEATURE_NAMES[f.kind]}${before > 0 ? ` ${before + 1}` : ''}`,
            STEP_OF[f.kind],
          );
        })}
        <Menu shadow="md" position="bottom-start" disabled={worked.features.length >= GREATEST_FEATURE_COUNT}>
          <Menu.Target>
            <Button size="compact-sm" variant="default" leftSection={<IconPlus size={14} />}>
              Add
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {(Object.keys(FEATURE_NAMES) as FeatureKind[]).map((kind) => (
              <Menu.Item key={kind} onClick={() => add(kind)}>
                {FEATURE_NAMES[kind]}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      </div>
      <WorkedDrawing work={work} face={face} chosen={chosen} onChoose={choose} />
      {feature?.kind === 'mark' && isSide(feature.face) && <SideElevation work={now} side={feature.face} />}
      <div className={classes.below}>
        <div>
          {feature ? (
            <FeatureFields
              key={feature.id}
              feature={feature}
              size={now.size}
              base={plan.shop.router?.base ?? null}
              byHabit={!worked.features.includes(feature)}
              crossed={crossedBy(
                now.solids.filter((s) => s.feature === feature.id),
                // Of rows of cells there is no strip from end to end to be named.
                plan.lastly ? [] : stripsOf(board),
                now.shift,
              )}
              onChange={work.setFeature}
              onRemove={() => {
                work.removeFeature(feature.id);
                setChosen('edges');
              }}
            />
          ) : chosen === 'corners' ? (
            <CornerFields corners={worked.corners} onChange={(corners) => change((w) => ({ ...w, corners }))} />
          ) : (
            <EdgeFields
              key={place}
              edges={now.edges}
              thickness={now.size.thickness}
              place={place}
              byHabit={worked.edges === null}
              onPlace={setPlace}
              onChange={(edges) => change((w) => ({ ...w, edges }))}
            />
          )}
        </div>
        <SectionDrawing edges={now.edges} features={now.features} size={now.size} side={sectionSide} />
      </div>
    </>
  );
}

/** What a feature lies across, in words. @param shift where the board's far edge lies on the panel, mm */
function crossedBy(solids: readonly Solid[], strips: readonly Strip[], shift: number): string {
  const tops = stripTops(strips);
  const bounds = solids.map((s) => boundsOf(s.outlines));
  const hit = strips.flatMap((s, i) =>
    bounds.some((b) => b.far < nth(tops, i) - shift + s.width - 1e-6 && b.near > nth(tops, i) - shift + 1e-6)
      ? [i + 1]
      : [],
  );
  const joints = tops
    .slice(1)
    .filter((top) => bounds.some((b) => b.far < top - shift - 1e-6 && b.near > top - shift + 1e-6)).length;
  if (hit.length === 0) return '';
  return `${hit.length === 1 ? 'strip' : 'strips'} ${listNumbers(hit)}${joints > 0 ? ` and ${joints} glue ${joints === 1 ? 'line' : 'lines'}` : ', no glue line'}`;
}
