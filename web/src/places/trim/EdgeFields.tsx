import { certain } from '#core/lists/there.ts';
import { Button, SegmentedControl, Select } from '@mantine/core';
import {
  bevelSetting,
  cornersSchema,
  EDGE_NAMES,
  edgeCutSchema,
  SIDES,
  type Corners,
  type EdgeCut,
  type Edges,
  type Side,
} from '#core/features/edge.ts';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { HabitButton, SchoolButton } from '../../habits/HabitButton.tsx';
import { Length } from '../../quantities/Length.tsx';
import { LengthInput } from '../../quantities/LengthInput.tsx';
import { NumberField } from '../../quantities/plainFields.tsx';
import classes from './WorkedEditor.module.css';

export type EdgePlace = Side | 'all';
const PLACES: readonly { value: EdgePlace; label: string }[] = [
  { value: 'all', label: 'All round' },
  { value: 'far', label: 'Far edge' },
  { value: 'right', label: 'Right end' },
  { value: 'near', label: 'Near edge' },
  { value: 'left', label: 'Left end' },
];

interface EdgeFieldsProps {
  edges: Edges;
  thickness: number;
  place: EdgePlace;
  byHabit: boolean;
  onPlace(place: EdgePlace): void;
  /** Null: as the shop has it. */
  onChange(edges: Edges | null): void;
}

/** The shape of each edge: all round or by the side, above and below. */
export function EdgeFields({ edges, thickness, place, byHabit, onPlace, onChange }: EdgeFieldsProps) {
  const shown = edges[place === 'all' ? 'far' : place];
  const differ = (face: 'top' | 'bottom') =>
    place === 'all' && SIDES.some((side) => JSON.stringify(edges[side][face]) !== JSON.stringify(shown[face]));
  const set = (face: 'top' | 'bottom', cut: EdgeCut) => {
    const sides = place === 'all' ? SIDES : [place];
    onChange({ ...edges, ...Object.fromEntries(sides.map((side) => [side, { ...edges[side], [face]: cut }])) });
  };
  return (
    <>
      <SegmentedControl
        className={classes.sides}
        size="xs"
        aria-label="Which edges"
        value={place}
        onChange={(v) => onPlace(v)}
        data={[...PLACES]}
      />
      {(['top', 'bottom'] as const).map((face) => (
        <div key={face} className={classes.face}>
          <Select
            size="xs"
            label={face === 'top' ? 'Above' : 'Below'}
            allowDeselect={false}
            value={shown[face].kind}
            onChange={(kind) => set(face, usual(kind as EdgeCut['kind'], thickness))}
            data={Object.entries(EDGE_NAMES).map(([value, label]) => ({ value, label }))}
            description={differ(face) ? 'Sides differ: this is the far edge' : undefined}
          />
          <div className={classes.faceFields}>
            <CutFields
              cut={shown[face]}
              where={face === 'top' ? 'above' : 'below'}
              onChange={(cut) => set(face, cut)}
            />
          </div>
        </div>
      ))}
      {shown.bottom.kind === 'underBevel' && shown.bottom.reveal <= thickness && (
        <p className={classes.note}>
          Saw: tilt <b>{shown.bottom.angle}°</b>, the bevel reaches{' '}
          <b>
            <Length mm={bevelSetting(shown.bottom, thickness).reach} />
          </b>{' '}
          in on the underside and is{' '}
          <b>
            <Length mm={bevelSetting(shown.bottom, thickness).face} />
          </b>{' '}
          wide.
        </p>
      )}
      <p className={classes.note}>
        {byHabit ? (
          <>
            As the shop has it: <SchoolButton question="edge" /> <HabitButton habit="edgeTreatment" />
          </>
        ) : (
          <Button size="compact-xs" variant="default" onClick={() => onChange(null)}>
            As the shop has it
          </Button>
        )}
      </p>
    </>
  );
}

/** A cut of a kind as it is usually made (common practice: chamfers and round-overs of 1/8 in, an under-bevel that leaves half of the side). */
function usual(kind: EdgeCut['kind'], thickness: number): EdgeCut {
  switch (kind) {
    case 'straight':
      return { kind };
    case 'chamfer':
      return { kind, reach: 3.2, angle: 45 };
    case 'roundOver':
      return { kind, radius: 3.2 };
    case 'underBevel':
      return { kind, angle: 45, reveal: Math.round(thickness) / 2 };
    case 'thumbnail':
      return { kind, reach: 12, drop: 6, step: 1 };
  }
}

function CutFields({ cut, where, onChange }: { cut: EdgeCut; where: string; onChange(cut: EdgeCut): void }) {
  const figure = (field: string, key: string) => {
    const shape = certain(edgeCutSchema.options.find((o) => o.shape.kind.value === cut.kind))
      .shape as unknown as Record<string, ReturnType<typeof lengthBetween>>;
    return (
      <LengthInput
        key={key}
        size="xs"
        field={`${field} ${where}`}
        label={field}
        aria-label={`${field} ${where}`}
        mm={(cut as unknown as Record<string, number>)[key]}
        schema={certain(shape[key])}
        onCommit={(mm) => onChange({ ...cut, [key]: mm })}
      />
    );
  };
  const angle = 'angle' in cut && (
    <NumberField
      key="angle"
      size="xs"
      field={`Angle ${where}`}
      label={cut.kind === 'underBevel' ? 'Blade tilt' : 'To the face'}
      suffix="°"
      value={cut.angle}
      schema={edgeCutSchema.options[1].shape.angle}
      onCommit={(degrees) => onChange({ ...cut, angle: degrees })}
    />
  );
  switch (cut.kind) {
    case 'straight':
      return null;
    case 'chamfer':
      return (
        <>
          {figure('In on the face', 'reach')}
          {angle}
        </>
      );
    case 'roundOver':
      return figure('Radius', 'radius');
    case 'underBevel':
      return (
        <>
          {figure('Left of the side', 'reveal')}
          {angle}
        </>
      );
    case 'thumbnail':
      return (
        <>
          {figure('In on the face', 'reach')}
          {figure('Down the side', 'drop')}
          {figure('Shoulder', 'step')}
        </>
      );
  }
}

/** Corners as seen from above. */
export function CornerFields({ corners, onChange }: { corners: Corners; onChange(corners: Corners): void }) {
  return (
    <div className={classes.fields}>
      <Select
        size="xs"
        label="Corners"
        allowDeselect={false}
        value={corners.kind}
        data={[
          { value: 'square', label: 'Square' },
          { value: 'round', label: 'Rounded' },
          { value: 'clip', label: 'Clipped' },
        ]}
        onChange={(kind) => onChange({ kind: kind as Corners['kind'], size: corners.size > 0 ? corners.size : 12 })}
      />
      {corners.kind !== 'square' && (
        <LengthInput
          size="xs"
          field={corners.kind === 'round' ? 'Radius' : 'Off each side'}
          mm={corners.size}
          schema={cornersSchema.shape.size}
          onCommit={(size) => onChange({ ...corners, size })}
        />
      )}
    </div>
  );
}
