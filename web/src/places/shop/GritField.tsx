import { firstOf } from '#core/lists/there.ts';
import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { shopSchema, type Shop } from '#core/shop/shop.ts';

interface GritFieldProps {
  grits: Shop['grits'];
  onCommit(grits: Shop['grits']): void;
}

/** Grits of the shop's own, first to last, as a maker writes them: 80, 120, 220. Empty lets Cadenza choose. */
export function GritField({ grits, onCommit }: GritFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const commit = () => {
    if (typed === null) return;
    const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
    const read = shopSchema.shape.grits.safeParse(words.length === 0 ? null : words.map(Number));
    if (!read.success) {
      setProblem(`Own grits ${firstOf(read.error.issues).message}; write them as 80, 120, 220.`);
      return;
    }
    setProblem(null);
    setTyped(null);
    if (JSON.stringify(read.data) !== JSON.stringify(grits)) onCommit(read.data);
  };
  return (
    <TextInput
      size="sm"
      mt="lg"
      maw={460}
      label="Own grits"
      description="First to last, such as 80, 120, 220. Empty: chosen from how the panel was made flat to the last grit above."
      error={problem}
      value={typed ?? (grits ?? []).join(', ')}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === 'Enter' && commit()}
    />
  );
}
