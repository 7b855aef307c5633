import { Link } from 'react-router';
import { useShop } from '../data/queries.ts';
import classes from './DemoNote.module.css';

/** Says that what is shown is made up, with the way to a shop of one's own. Nothing at all in anybody's own shop. */
export function DemoNote() {
  const { data } = useShop();
  if (!data?.demo) return null;
  return (
    <p className={classes.note}>
      This is a made-up shop, “{data.shop.name}”, to look around in and try things on.{' '}
      <Link to="/setup">Set up my own shop</Link>
    </p>
  );
}
