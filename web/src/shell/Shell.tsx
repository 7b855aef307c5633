import { ActionIcon, Button, SegmentedControl, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconKeyboard, IconMoon, IconSun } from '@tabler/icons-react';
import { isRouteErrorResponse, Link, NavLink, Outlet, useNavigate, useRouteError } from 'react-router';
import { useDisplay } from '../quantities/display.tsx';
import { useShortcuts, useShortcutSheet } from '../shortcuts/Shortcuts.tsx';
import classes from './Shell.module.css';
import { AloneNote } from './AloneNote.tsx';
import { CopiesNote } from './CopiesNote.tsx';
import { HereNote } from './HereNote.tsx';
import { useListening } from './useLive.ts';
import { WaitLine } from './WaitLine.tsx';

/** The frame around every place: where to go, the unit, light or dark, the keys. */
export function Shell() {
  const { display, setDisplay } = useDisplay();
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme('light') === 'dark';
  const navigate = useNavigate();
  const openSheet = useShortcutSheet();
  useListening();
  const toggleUnit = () => setDisplay({ system: display.system === 'metric' ? 'inch' : 'metric' });

  useShortcuts('Places', [
    { keys: 'alt+t', does: 'Go to today', run: () => void navigate('/today') },
    { keys: 'g', does: 'Go to the boards', run: () => void navigate('/boards') },
    { keys: 'alt+c', does: 'Go to the calendar', run: () => void navigate('/calendar') },
    { keys: 'alt+m', does: 'Go to the money', run: () => void navigate('/money') },
    { keys: 'k', does: 'Go to the rack', run: () => void navigate('/rack') },
    { keys: 'y', does: 'What could I make? Proposals from the rack', run: () => void navigate('/propose') },
    { keys: 'h', does: 'Go to the shop', run: () => void navigate('/shop') },
    { keys: 'j', does: 'Go to the species', run: () => void navigate('/species') },
    { keys: 'alt+l', does: 'Go to the log', run: () => void navigate('/log') },
    { keys: 'u', does: 'Switch between millimetres and inches', run: toggleUnit },
  ]);

  return (
    <>
      <a className={classes.skip} href="#main">
        Skip to the content
      </a>
      <header className={classes.bar}>
        <Link to="/" className={classes.mark} aria-label="Cadenza, where the work stands">
          <svg viewBox="0 0 32 32" width="22" height="22" aria-hidden="true">
            <path d="M4 8h24M4 14h24M4 18h24M4 24h24" stroke="currentColor" strokeWidth="2.2" />
            <path d="M9 28 23 4" stroke="var(--blue)" strokeWidth="2.4" />
          </svg>
          <span>Cadenza</span>
        </Link>
        <nav aria-label="Places" className={classes.places}>
          <NavLink to="/today">Today</NavLink>
          <NavLink to="/boards" end>
            Boards
          </NavLink>
          <NavLink to="/calendar">Calendar</NavLink>
          <NavLink to="/rack">Rack</NavLink>
          <NavLink to="/propose">Propose</NavLink>
          <NavLink to="/shop">Shop</NavLink>
          <NavLink to="/species">Species</NavLink>
          <NavLink to="/log">Log</NavLink>
          <NavLink to="/money">Money</NavLink>
        </nav>
        <WaitLine />
        <HereNote />
        <AloneNote />
        <CopiesNote />
        <div className={classes.tools}>
          <SegmentedControl
            size="xs"
            aria-label="Unit of length"
            value={display.system}
            onChange={(system) => setDisplay({ system: system })}
            data={[
              { value: 'metric', label: 'mm' },
              { value: 'inch', label: 'inch' },
            ]}
          />
          {display.system === 'inch' && (
            <SegmentedControl
              size="xs"
              aria-label="Smallest fraction"
              value={String(display.denominator)}
              onChange={(d) => setDisplay({ denominator: Number(d) as 16 | 32 | 64 })}
              data={['16', '32', '64'].map((d) => ({ value: d, label: `1/${d}` }))}
            />
          )}
          <ActionIcon
            title={dark ? 'Light page' : 'Dark page'}
            variant="subtle"
            color="gray"
            c="var(--ink-soft)"
            aria-label={dark ? 'Light page' : 'Dark page'}
            onClick={() => setColorScheme(dark ? 'light' : 'dark')}
          >
            {dark ? <IconSun size={18} /> : <IconMoon size={18} />}
          </ActionIcon>
          <ActionIcon
            title="Keys (?)"
            variant="subtle"
            color="gray"
            c="var(--ink-soft)"
            aria-label="Show all keys"
            onClick={openSheet}
          >
            <IconKeyboard size={18} />
          </ActionIcon>
        </div>
      </header>
      <main id="main" className={classes.main}>
        <Outlet />
      </main>
    </>
  );
}

/** A page that could not be drawn: it is said so, never that it is not there. */
export function PageBroke() {
  const error = useRouteError();
  if (isRouteErrorResponse(error)) return <NothingHere />;
  return (
    <div className={classes.nothing} role="alert">
      <h1>This page broke</h1>
      <p>What you entered is kept. Load it again; if it breaks again, the other pages still work.</p>
      <p>{error instanceof Error ? error.message : String(error)}</p>
      <Button onClick={() => window.location.reload()}>Load again</Button>
      <Button component={Link} to="/boards" variant="default" reloadDocument>
        All boards
      </Button>
    </div>
  );
}

/** An address that leads nowhere. */
export function NothingHere() {
  return (
    <div className={classes.nothing}>
      <h1>There is nothing here</h1>
      <p>The address may be mistyped, or the board was removed.</p>
      <Button component={Link} to="/boards">
        All boards
      </Button>
    </div>
  );
}
