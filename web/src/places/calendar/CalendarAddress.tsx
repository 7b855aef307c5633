import { Button, CopyButton, TextInput } from '@mantine/core';
import { IconCalendarDown } from '@tabler/icons-react';
import { useState } from 'react';
import { api } from '../../data/api.ts';
import { saveFile } from '../../data/saveFile.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { useDisplay } from '../../quantities/display.tsx';
import type { ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './CalendarPlace.module.css';

/** The work as a calendar file, and an address that calendars ask by themselves. */
export function CalendarAddress({ data: { work, schedule } }: { data: ShopSchedule }) {
  const { display } = useDisplay();
  const [address, setAddress] = useState<string | null>(null);
  const download = async () => {
    try {
      const [{ scheduleEvents }, { shopCalendar }] = await Promise.all([
        import('#core/templates/scheduleEvents.ts'),
        import('#core/templates/shopCalendar.ts'),
      ]);
      const events = scheduleEvents(
        schedule,
        work.boards.map((b) => b.work),
        display,
      );
      const text = shopCalendar(work.shop.name, events, Date.parse(work.now));
      saveFile(new Blob([text], { type: 'text/calendar' }), work.shop.name, 'ics');
    } catch (error) {
      showProblem(error);
    }
  };
  const renew = async () => {
    try {
      const { path } = await api.newCalendarAddress();
      setAddress(new URL(path, window.location.href).href);
      await queryClient.invalidateQueries({ queryKey: keys.schedule });
    } catch (error) {
      showProblem(error);
    }
  };
  const close = async () => {
    try {
      await api.closeCalendar();
      setAddress(null);
      await queryClient.invalidateQueries({ queryKey: keys.schedule });
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <section className={classes.address} aria-label="For other calendars">
      <h2>For other calendars</h2>
      <p>
        Steps as events, waits as reminders. Whoever knows the address reads the work of the shop, and nothing else; a
        new address closes the one before.
      </p>
      <div className={classes.pinFields}>
        <Button
          size="xs"
          variant="default"
          leftSection={<IconCalendarDown size={16} />}
          onClick={() => void download()}
        >
          Calendar file
        </Button>
        <Button size="xs" variant="default" onClick={() => void renew()}>
          {work.calendar ? 'New address' : 'Make an address'}
        </Button>
        {work.calendar && (
          <Button size="xs" variant="default" onClick={() => void close()}>
            Close the address
          </Button>
        )}
      </div>
      {address && (
        <div className={classes.pinFields}>
          <TextInput size="xs" readOnly label="Subscribe to" value={address} className={classes.addressField} />
          <CopyButton value={address}>
            {({ copied, copy }) => (
              <Button size="xs" onClick={copy}>
                {copied ? 'Copied' : 'Copy'}
              </Button>
            )}
          </CopyButton>
        </div>
      )}
    </section>
  );
}
