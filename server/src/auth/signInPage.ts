const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};
const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => ENTITIES[sign] ?? sign);

const STYLE = `
:root { color-scheme: light dark; --page: #f6f4ef; --sheet: #fff; --ink: #23211d; --soft: #5d584e; --line: #b9b2a3; --blue: #1f5fa8; --red: #a1261d; }
@media (prefers-color-scheme: dark) { :root { --page: #191815; --sheet: #23211d; --ink: #f0ede6; --soft: #b5ae9f; --line: #615b50; --blue: #8fbdf0; --red: #ff9d92; } }
body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: var(--page); color: var(--ink); font: 17px/1.5 system-ui, sans-serif; }
main { box-sizing: border-box; width: min(26rem, calc(100vw - 32px)); background: var(--sheet); border: 1px solid var(--line); padding: 24px; }
h1 { font-size: 24px; margin: 0 0 8px; } p { margin: 0 0 16px; color: var(--soft); } p[role=alert] { color: var(--red); }
label { display: block; margin: 0 0 16px; font-weight: 600; }
input { display: block; box-sizing: border-box; width: 100%; margin-top: 4px; padding: 10px; font: inherit; font-weight: 400; color: inherit; background: var(--page); border: 1px solid var(--line); }
button { font: inherit; font-weight: 600; padding: 10px 18px; border: 0; background: var(--blue); color: var(--sheet); cursor: pointer; }
:focus-visible { outline: 3px solid var(--blue); outline-offset: 2px; }
`;

interface Page {
  title: string;
  text: string;
  problem: string | null;
  /** Where the form goes; null for a page without one. */
  action: string | null;
  fields: { name: string; label: string; type: 'text' | 'password'; value: string; complete: string }[];
  button: string;
}

/** A page before the door: it needs nothing of the application, and shows nothing of the shop. */
export function doorPage({ title, text, problem, action, fields, button }: Page): string {
  const inputs = fields
    .map(
      ({ name, label, type, value, complete }, i) =>
        `<label>${escaped(label)}<input name="${name}" type="${type}" value="${escaped(value)}" autocomplete="${complete}" maxlength="200" required${i === 0 ? ' autofocus' : ''}></label>`,
    )
    .join('');
  const form =
    action === null
      ? ''
      : `<form method="post" action="${escaped(action)}">${inputs}<button>${escaped(button)}</button></form>`;
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(title)} · Cadenza</title><style>${STYLE}</style></head><body><main><h1>${escaped(title)}</h1><p>${escaped(text)}</p>${problem === null ? '' : `<p role="alert">${escaped(problem)}</p>`}${form}</main></body></html>`;
}
