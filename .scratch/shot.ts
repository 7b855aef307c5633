import { chromium } from '@playwright/test';
const [base, path, out, w, h, scheme, js] = process.argv.slice(2);
const b = await chromium.launch({ executablePath: '/usr/bin/chromium' });
const p = await b.newPage({ viewport: { width: Number(w), height: Number(h) }, colorScheme: scheme as 'light' });
p.on('pageerror', (e) => console.log('ERR', e.message));
p.on('console', (m) => { if (m.type() === 'error') console.log('CON', m.text()); });
await p.goto(base + path, { waitUntil: 'networkidle' });
await p.waitForTimeout(1200);
if (js) { console.log(await p.evaluate(js)); await p.waitForTimeout(1200); }
await p.screenshot({ path: out, fullPage: process.env.FULL === '1' });
await b.close();
