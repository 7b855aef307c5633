import { Button } from '@mantine/core';
import { useState } from 'react';
import { shopSchema } from '#core/shop/shop.ts';
import { useReadings } from '../../data/readings.ts';
import { showProblem } from '../../shell/notices.tsx';

/** Waits for the next reading of a hygrometer, and takes it. */
export function HygrometerButton({ onHumidity }: { onHumidity(percent: number): void }) {
  const [waiting, setWaiting] = useState(false);
  useReadings(waiting ? 'humidity' : null, (taken) => {
    const read = taken.ok ? shopSchema.shape.room.shape.humidity.safeParse(Math.round(taken.value)) : null;
    if (!taken.ok || !read?.success) {
      const why = taken.ok ? `The humidity ${read?.error?.issues[0]?.message ?? 'cannot be that'}.` : taken.message;
      showProblem(new Error(why));
      return;
    }
    setWaiting(false);
    onHumidity(read.data);
  });
  return (
    <Button variant="default" onClick={() => setWaiting(!waiting)}>
      {waiting ? 'Waiting for the hygrometer; press to stop' : 'Take it from the hygrometer'}
    </Button>
  );
}
