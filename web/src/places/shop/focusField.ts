const LABELS = 'label, legend, h3, [role="group"][aria-label]';

/** What a label is the label of: its own control, or the first one in the group it names. */
function controlOf(label: HTMLElement): HTMLElement | null {
  if (label instanceof HTMLLabelElement && label.control) return label.control;
  const group = label.closest<HTMLElement>('[role="radiogroup"], [role="group"], fieldset') ?? label.parentElement;
  return group?.querySelector<HTMLElement>('input:checked, input, button, select') ?? null;
}

/** Brings a field into sight and under the hands, by its label. @returns whether it is there */
export function focusField(root: HTMLElement, label: string): boolean {
  const named = [...root.querySelectorAll<HTMLElement>(LABELS)].find(
    (one) => (one.getAttribute('aria-label') ?? one.textContent).trim() === label,
  );
  const control = named && controlOf(named);
  if (!control) return false;
  control.scrollIntoView({ block: 'center' });
  control.focus({ preventScroll: true });
  return true;
}
