import type { Express, RequestHandler } from 'express';
import type { Guard } from '../http/serve.ts';

export interface Route {
  method: string;
  path: string;
  /** Undefined where nothing asks who may. */
  lets: Guard['lets'];
}

interface Layer {
  handle: RequestHandler & { stack?: Layer[]; beside?: boolean };
  route?: { path: string; methods: Record<string, boolean>; stack: Layer[] };
}

/** Every route of the app below `/api`, with what its guard lets pass. */
export function routesOf(app: Express): Route[] {
  const routes = new Map<string, Route>();
  const walk = (layers: readonly Layer[]): void => {
    for (const { route, handle } of layers) {
      if (handle.stack) walk(handle.stack);
      if (!route || route.path === '/{*any}') continue;
      const lets = route.stack.map((layer) => (layer.handle as Guard).lets).find(Boolean);
      for (const name of Object.keys(route.methods)) {
        const method = name.toUpperCase();
        const key = `${method} ${route.path}`;
        routes.set(key, { method, path: route.path, lets: lets ?? routes.get(key)?.lets });
      }
    }
  };
  walk((app.router as unknown as { stack: Layer[] }).stack);
  return [...routes.values()];
}

/** Handlers that are mounted beside routes, where no guard stands before them, and say nothing of that. */
export function strayHandlersOf(app: Express): string[] {
  const walk = (layers: readonly Layer[]): string[] =>
    layers.flatMap(({ route, handle }) => {
      if (handle.stack) return walk(handle.stack);
      // What takes four arguments handles errors.
      const known = route !== undefined || handle.beside === true || handle.length === 4;
      return known ? [] : [handle.name || 'a handler without a name'];
    });
  return walk((app.router as unknown as { stack: Layer[] }).stack);
}
