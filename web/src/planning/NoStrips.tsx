import { Button } from '@mantine/core';
import { Link } from 'react-router';
import classes from './NoStrips.module.css';

/** What a station shows while there is nothing to plan yet, and where to go. */
export function NoStrips() {
  return (
    <div className={classes.empty}>
      <h2>No plan yet</h2>
      <p>A plan begins with strips. Lay some out, and everything here is computed at once.</p>
      <Button component={Link} to="../layout" relative="path">
        Lay out strips
      </Button>
    </div>
  );
}
