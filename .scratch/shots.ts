import { chromium } from '@playwright/test';
const base = 'http://127.0.0.1:4300';
const boards = (await (await fetch(base + '/api/boards')).json()) as { id: string; board: { name: string } }[];
const id = (n: string) => boards.find((b) => b.board.name.includes(n))!.id;
const bread = id('bread'), carving = id('carving'), dough = id('dough');
const VIEWS: Record<string, string> = {
  today: '/today', calendar: '/calendar', money: `/boards/${bread}/money`, boards: '/boards', rack: '/rack', propose: '/propose', species: '/species', shop: '/shop', log: '/log',
  brief: `/boards/${carving}/brief`, layout: `/boards/${carving}/layout`, recut: `/boards/${id('Chevron')}/layout`, cuts: `/boards/${bread}/cuts`, mill: `/boards/${bread}/mill`, glue: `/boards/${bread}/glue`, trim: `/boards/${carving}/trim`, finish: `/boards/${carving}/finish`, sheet: `/boards/${bread}/sheet`, bench: `/boards/${id('ham')}/bench`,
};
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
for (const [name, path] of Object.entries(VIEWS)) {
  await p.goto(base + path, { waitUntil: 'networkidle' });
  await p.waitForTimeout(name === 'propose' ? 9000 : name === 'today' || name === 'calendar' ? 9500 : 1800);
  if (name === 'propose') { const btn = p.getByRole('button', { name: /Propose/ }).first(); if (await btn.isVisible().catch(() => false)) { await btn.click(); await p.waitForTimeout(9000); } }
  await p.screenshot({ path: `docs/screenshots/${name}.png` });
}
await b.close();
