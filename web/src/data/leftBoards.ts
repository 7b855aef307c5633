import { DRAFT, draftsFrom } from '../offline/drafts.ts';
import { showWord } from '../shell/notices.tsx';
import { api } from './api.ts';
import { BoardSession } from './boardSession.ts';
import { keys, queryClient } from './queryClient.ts';

/** Records whose lines go on by themselves. */
const OTHERS = /^(shop$|piece\.)/;

/** Ids of boards of which this page holds unsent changes. */
export const leftBoards = (): string[] =>
  draftsFrom(DRAFT)
    .map((key) => key.slice(DRAFT.length))
    .filter((name) => !OTHERS.test(name));

/** Sends what was changed on boards without a server and not sent before their page was closed. What somebody else changed meanwhile is left for whoever opens the board. @param open the board whose own page does it @param say tells how it went */
export async function sendLeftBoards(open: string | null, say: (words: string) => void = showWord): Promise<void> {
  for (const id of leftBoards().filter((left) => left !== open)) {
    const loaded = await api.board(id).catch(() => null);
    if (!loaded) continue;
    const session = new BoardSession(id, loaded);
    const tell = () => {
      const { save, board } = session.snapshot();
      if (save.kind === 'saved') {
        say(`“${board.name}”: what was changed without the server is stored.`);
        void queryClient.invalidateQueries({ queryKey: keys.boards });
      } else if (save.kind === 'conflict') {
        say(`“${board.name}” was changed elsewhere too while this device was alone. Open it to choose; both are kept.`);
      } else if (save.kind !== 'refused') return;
      done();
    };
    const done = session.subscribe(tell);
    await session.flush();
  }
}
