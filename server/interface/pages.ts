import express, { Router } from 'express';
import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const PAGES = fileURLToPath(new URL('./pages', import.meta.url));
const ASSETS = path.dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'));

/** The pages of the interface for other programs: every call with an example to try, made from its description. */
export function createInterfacePages(): Router {
  const router = Router();
  router.use('/assets', express.static(ASSETS, { index: false, maxAge: '1d', fallthrough: false }));
  router.use('/pages', express.static(PAGES, { index: false, fallthrough: false }));
  router.get('/', (_request, response) => response.sendFile('index.html', { root: PAGES }));
  return router;
}
