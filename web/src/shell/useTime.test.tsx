import { act, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useDay, useMinute } from './useTime.ts';

function Told() {
  const day = useDay();
  const minute = new Date(useMinute());
  return (
    <p>
      {day.getDate()}, {minute.getMinutes()}
    </p>
  );
}

describe('the time a page tells', () => {
  beforeEach(() => void vi.useFakeTimers({ toFake: ['Date'], now: new Date(2026, 10, 28, 23, 58, 59, 999) }));
  afterEach(() => void vi.useRealTimers());

  it('is that of the paper when it is printed, and of the screen when it is come back to, over night too', () => {
    render(<Told />);
    screen.getByText('28, 58');
    vi.setSystemTime(new Date(2026, 10, 28, 23, 59));
    act(() => void document.dispatchEvent(new Event('visibilitychange')));
    screen.getByText('28, 59');
    vi.setSystemTime(new Date(2026, 10, 29, 0, 0));
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    expect(screen.getByText('29, 0')).toBeTruthy();
  });
});
