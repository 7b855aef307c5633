import type { StripOperation } from '#core/board/recipe.ts';
import { stripSchema } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { LengthInput } from '../../../quantities/LengthInput.tsx';
import { SpeciesChoice } from '../StripRail.tsx';
import classes from './recut.module.css';

interface StripFieldsProps {
  /** The strip in hand, and what its width is called. */
  strip: StripOperation;
  label: string;
  onChange(change: { species?: string; width?: number }): void;
}

/** Wood and width of a strip that is glued on or put in. */
export function StripFields({ strip, label, onChange }: StripFieldsProps) {
  const { input } = useOpenBoard();
  return (
    <>
      <div className={classes.wood}>
        <SpeciesChoice
          value={strip.species}
          species={input.species}
          rack={input.rack}
          onChange={(species) => onChange({ species })}
        />
      </div>
      <LengthInput
        key={strip.id}
        size="xs"
        w={104}
        field="Strip width"
        label={label}
        mm={strip.width}
        schema={stripSchema.shape.width}
        onCommit={(width) => onChange({ width })}
      />
    </>
  );
}
