import { benchCalendar } from './calendar';
import { benchCreate } from './create';
import { benchFirstLoad } from './firstLoad';

const BENCHES: Record<string, () => Promise<void>> = {
  create: benchCreate,
  firstLoad: benchFirstLoad,
  calendar: benchCalendar,
};

const wanted = process.argv.slice(2);
for (const [name, bench] of Object.entries(BENCHES)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  process.stdout.write(`\n${name}\n`);
  await bench();
}
