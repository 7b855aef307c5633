/** Where a figure of the shop is changed: its room, with the very field in sight. */
export function figurePath(room: string, label: string): string {
  return `/shop/${room}?find=${encodeURIComponent(label)}`;
}
