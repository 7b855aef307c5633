import { clampCount } from '#core/shop/gluing.ts';
import { QUESTIONS, schoolOf } from '#core/shop/schools.ts';
import { startingAnswersSchema, startingShop, type StartingAnswers } from '#core/shop/startingShop.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './SetupPlace.module.css';

/** Ways of working that follow from what is there. */
const DECIDED = ['straightEdge', 'thin', 'flatten'] as const;

/** What plans will do with these answers, as they are given. */
export function StartingWays({ answers }: { answers: StartingAnswers }) {
  const read = startingAnswersSchema.safeParse(answers);
  if (!read.success) return null;
  const shop = startingShop(read.data);
  const clamps = clampCount(shop.clamps);
  const longest = clamps === 0 ? 0 : 2 * shop.pace.clampInset + (clamps - 1) * shop.pace.clampSpacing;
  return (
    <aside className={classes.ways} aria-label="What plans will do with it">
      <h2>Plans will then say</h2>
      <dl>
        {DECIDED.map((question) => {
          const { name, why } = schoolOf(shop.schools, question);
          return (
            <div key={question}>
              <dt>{QUESTIONS[question].asks}</dt>
              <dd>
                <b>{name}</b> {why}
              </dd>
            </div>
          );
        })}
        <div>
          <dt>Saw kerfs</dt>
          <dd>
            <b>
              <Length mm={shop.saw.kerf} />
            </b>{' '}
            ripping,{' '}
            <b>
              <Length mm={shop.crosscutSaw.kerf} />
            </b>{' '}
            crosscutting
          </dd>
        </div>
        <div>
          <dt>Clamps</dt>
          <dd>
            {clamps === 0 ? (
              'None: every glue-up is stopped until there are some.'
            ) : (
              <>
                One every{' '}
                <b>
                  <Length mm={shop.pace.clampSpacing} />
                </b>
                : enough for a panel{' '}
                <b>
                  <Length mm={longest} />
                </b>{' '}
                long
              </>
            )}
          </dd>
        </div>
        <div>
          <dt>To spare on a panel</dt>
          <dd>
            <b>
              <Length mm={shop.habits.panelFlatten + shop.habits.sanding} />
            </b>{' '}
            thick for flattening and sanding,{' '}
            <b>
              <Length mm={2 * shop.habits.panelEdgeTrim} />
            </b>{' '}
            wide for its edges
          </dd>
        </div>
      </dl>
    </aside>
  );
}
