import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { readToday } from './today';

export const figureRoutes: Routes = (router, listo) => {
  serve(router, api.figures.today, ({ viewer }) => readToday(listo, viewer));
};
