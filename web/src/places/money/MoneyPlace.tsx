import { Link, useParams } from 'react-router';
import { MachineSavings } from './MachineSavings.tsx';
import { ShoppingList } from './ShoppingList.tsx';
import { StockWorth } from './StockWorth.tsx';
import classes from './money.module.css';

const PARTS = [
  ['shopping', 'Shopping list'],
  ['stock', 'What the rack is worth'],
  ['machines', 'What a machine would save'],
] as const;

/** The money of the shop: what is to be bought, what lies in the rack, what a machine would save. */
export function MoneyPlace() {
  const { part = 'shopping' } = useParams();
  return (
    <div className={classes.single}>
      <h1>Money</h1>
      <nav className={`${classes.tabs} ${classes.noPrint}`} aria-label="Money">
        {PARTS.map(([id, label]) => (
          <Link key={id} to={`/money/${id}`} aria-current={part === id ? 'page' : undefined}>
            {label}
          </Link>
        ))}
      </nav>
      {part === 'stock' ? <StockWorth /> : part === 'machines' ? <MachineSavings /> : <ShoppingList />}
    </div>
  );
}
