import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { goldenBoards, goldenText, TELLING } from './goldenBoards.ts';
import { SECTIONS } from './planText.ts';

const boards = goldenBoards();
const whole = [...boards.keys()].filter((name) => !name.startsWith('seeded') || TELLING.includes(Number(name.slice('seeded-'.length))));

it.each(whole)('%s: ladders, cuts, steps in both units, glue-ups, findings, timeline and materials are as they were (vitest -u where they are meant to change)', async (name) => {
  const text = goldenText(boards.get(name)!);
  await expect(SECTIONS.map((s) => `== ${s}\n${text[s]}\n`).join('\n')).toMatchFileSnapshot(`./boards/${name}.txt`);
});

it('so is every seeded board, section by section', async () => {
  const lines = [...boards].map(([name, input]) => {
    const text = goldenText(input);
    return `${name} ${SECTIONS.map((s) => `${s}:${createHash('sha256').update(text[s]).digest('hex').slice(0, 10)}`).join(' ')}`;
  });
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('./sections.txt');
}, 120_000);
