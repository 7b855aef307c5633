import { Button, Group, TextInput } from '@mantine/core';
import { IconArrowBackUp, IconArrowLeft, IconDatabaseExport, IconDevices, IconSearch } from '@tabler/icons-react';
import { useEffect, useRef, useState } from 'react';
import { Link, NavLink, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Shop } from '#core/shop/shop.ts';
import { figurePath } from '../../habits/figurePath.ts';
import { trouble, useShop } from '../../data/queries.ts';
import { useShopEdits } from '../../data/recordEdits.ts';
import { Say } from '../../quantities/Length.tsx';
import { DemoNote } from '../../shell/DemoNote.tsx';
import { LineNote } from '../../shell/LineNote.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { focusField } from './focusField.ts';
import { ShopRoomBody } from './ShopRoomBody.tsx';
import { findFigures, roomIds, SHOP_ROOMS, type RoomId } from './shopRooms.ts';
import classes from './ShopPlace.module.css';

const isRoom = (id: string | undefined): id is RoomId => (roomIds as readonly (string | undefined)[]).includes(id);

/** The figures that every plan is made with, room by room: machines, clamps, glues, hours, habits. Each is saved as it is left. */
export function ShopPlace() {
  const stored = useShop();
  const edits = useShopEdits();
  const { room: asked } = useParams();
  const [{ room, wanted }, body] = [useWanted(asked), useRef<HTMLElement>(null)];
  const search = useRef<HTMLInputElement>(null);
  const problem = trouble(stored);
  const loaded = stored.data !== undefined;
  useEffect(() => {
    if (loaded && wanted && body.current) focusField(body.current, wanted);
  }, [loaded, room, wanted, body]);
  useShortcuts('Shop', [
    { keys: 'mod+z', does: 'Undo the last change of the shop', run: edits.undo },
    { keys: '/', does: 'Find a figure of the shop', run: () => search.current?.focus() },
  ]);
  if (!stored.data)
    return (
      <p className={classes.loading} role={problem ? 'alert' : undefined}>
        {problem ? `${problem.message} Cadenza keeps trying.` : 'Loading …'}
      </p>
    );
  const { shop } = stored.data;
  return (
    <div className={classes.page} data-room={asked ? 'chosen' : undefined}>
      <Group justify="space-between">
        <h1>Shop</h1>
        <Group>
          <LineNote state={edits.state} />
          <Button
            component={Link}
            to="/shop/backup"
            size="compact-md"
            variant="default"
            leftSection={<IconDatabaseExport size={15} />}
          >
            Backup
          </Button>
          <Button
            component={Link}
            to="/devices"
            size="compact-md"
            variant="default"
            leftSection={<IconDevices size={15} />}
          >
            Devices
          </Button>
          <Button
            size="compact-md"
            variant="default"
            leftSection={<IconArrowBackUp size={15} />}
            disabled={!edits.canUndo}
            onClick={edits.undo}
          >
            Undo
          </Button>
        </Group>
      </Group>
      <DemoNote />
      <p className={classes.lead}>Every plan is made with these figures. Change one, and all boards follow.</p>
      <div className={classes.rooms}>
        <RoomRail shop={shop} search={search} current={room} />
        <section ref={body} className={classes.room} aria-labelledby="room-title">
          <Link to="/shop" className={classes.back}>
            <IconArrowLeft size={16} /> All rooms
          </Link>
          <h2 id="room-title">{SHOP_ROOMS[room].title}</h2>
          <p>{SHOP_ROOMS[room].about}</p>
          <ShopRoomBody room={room} shop={shop} change={edits.change} />
        </section>
      </div>
    </div>
  );
}

/** The room in the address, machines where there is none, and the figure that is looked for. */
function useWanted(asked: string | undefined): { room: RoomId; wanted: string | null } {
  const [query] = useSearchParams();
  return { room: isRoom(asked) ? asked : 'machines', wanted: query.get('find') };
}

interface RoomRailProps {
  shop: Shop;
  search: React.RefObject<HTMLInputElement | null>;
  current: RoomId;
}

/** All rooms with what is in them at a glance; while something is looked for, the figures of that name. */
function RoomRail({ shop, search, current }: RoomRailProps) {
  const [typed, setTyped] = useState('');
  const navigate = useNavigate();
  const hits = findFigures(typed);
  const [first] = hits;
  return (
    <nav className={classes.rail} aria-label="Rooms of the shop">
      <TextInput
        ref={search}
        size="sm"
        label="Find a figure"
        placeholder="kerf, planer width, sanding …"
        leftSection={<IconSearch size={15} />}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && first) void navigate(figurePath(first.room, first.label));
          if (e.key === 'Escape') setTyped('');
        }}
      />
      {typed.trim() === '' ? (
        <ul>
          {roomIds.map((id) => (
            <li key={id}>
              <NavLink to={`/shop/${id}`} data-current={id === current || undefined}>
                <b>{SHOP_ROOMS[id].title}</b>
                <span>
                  <Say phrase={SHOP_ROOMS[id].glance(shop)} />
                </span>
              </NavLink>
            </li>
          ))}
        </ul>
      ) : (
        <ul aria-live="polite">
          {hits.length === 0 && <li className={classes.none}>No figure of the shop is called so.</li>}
          {hits.slice(0, 12).map(({ room, label }) => (
            <li key={`${room} ${label}`}>
              <Link to={figurePath(room, label)}>
                <b>{label}</b>
                <span>{SHOP_ROOMS[room].title}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </nav>
  );
}
