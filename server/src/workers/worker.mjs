// A thread starts as plain JavaScript; from here on it reads TypeScript as the process that started it does.
import { register } from 'tsx/esm/api';

register();
const { carryOut } = await import('./carryOut.ts');
export default carryOut;
