import { firstOf } from '#core/lists/there.ts';
import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { shopSchema, type Shop } from '#core/shop/shop.ts';

interface GritFieldProps {
  field: string;
  description: string;
  grits: Shop['grits'];
  onCommit(grits: Shop['grits']): void;
}

/** Grits of the shop's own, first to last, as a maker writes them: 80, 120, 220. Empty lets Cadenza choose. */
export function GritField({ field, description, grits, onCommit }: GritFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const commit = () => {
    if (typed === null) return;
    const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
    const read = shopSchema.shape.grits.safeParse(words.length === 0 ? null : words.map(Number));
    if (!read.success) {
      setProblem(`${field} ${firstOf(read.error.issues).message}; write them as 80, 120, 220.`);
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
      label={field}
      description={description}
      error={problem}
      value={typed ?? (grits ?? []).join(', ')}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === 'Enter' && commit()}
    />
  );
}
