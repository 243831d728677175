import type { Router } from 'express';
import { api } from '../../contract';
import { ProblemError } from '../http/problems';
import { serve } from '../http/serve';
import type { Listo } from '../listo';
import { readRunning } from './read';

/** @param streamsNow how many browsers this process tells live */
export function runningRoutes(router: Router, listo: Listo, streamsNow: () => number): void {
  serve(router, api.running.get, ({ viewer }) => {
    if (!viewer.isAdministrator) throw new ProblemError('forbidden');
    return readRunning(listo, streamsNow());
  });
}
