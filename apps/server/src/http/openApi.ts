import { dirname } from 'node:path';
import { createRequire } from 'node:module';
import { ROUTE_NAMES, ROUTES, type Route } from '@jam-ledger/contract';
import { ROUTE_SCHEMAS } from '@jam-ledger/contract/schemas';
import express, { Router } from 'express';
import joiToSwagger from 'joi-to-swagger';
import { SESSION_COOKIE } from './sessionCookie.ts';

/** A schema as OpenAPI writes it. */
type Described = Readonly<Record<string, unknown>>;

let described: object | undefined;

/** What the routes are, for programs. Source: OpenAPI Specification 3.0.3. */
export function openApi(): object {
  described ??= describe();
  return described;
}

function describe(): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const name of ROUTE_NAMES) {
    const route: Route = ROUTES[name];
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[path] ??= {})[route.method.toLowerCase()] = operationOf(name, route);
  }
  return {
    openapi: '3.0.3',
    info: { title: 'Jam Ledger', version: '1', description: 'Everything that can be asked of the studio’s server.' },
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: SESSION_COOKIE } } },
    paths,
  };
}

function operationOf(name: keyof typeof ROUTES, { does, path, who, of, creates }: Route): object {
  const schemas: { readonly query?: Joi; readonly body?: Joi; readonly answer: Joi } = ROUTE_SCHEMAS[name];
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, word]) => ({
    name: word,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  return {
    operationId: name,
    tags: [path.split('/')[1]],
    summary: does,
    description: who === 'anybody' ? 'Open to anybody.' : `For ${who.join(', ')}; ${of}.`,
    ...(who !== 'anybody' && { security: [{ session: [] }] }),
    parameters: [...inPath, ...(schemas.query ? queryOf(schemas.query) : [])],
    ...(schemas.body && {
      requestBody: { required: true, content: { 'application/json': { schema: swaggerOf(schemas.body) } } },
    }),
    responses: {
      [creates ? 201 : 200]: {
        description: 'done',
        content: { 'application/json': { schema: swaggerOf(schemas.answer) } },
      },
      default: { description: 'refused, with a sentence that says why' },
    },
  };
}

type Joi = Parameters<typeof joiToSwagger.default>[0];

function swaggerOf(schema: Joi): Described {
  return joiToSwagger.default(schema).swagger;
}

function queryOf(schema: Joi): readonly object[] {
  const { properties = {}, required = [] } = swaggerOf(schema) as {
    readonly properties?: Described;
    readonly required?: readonly string[];
  };
  return Object.entries(properties).map(([name, one]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: one,
  }));
}

/** A page on which the description is read, at `/docs/`. */
export function openApiPage(): Router {
  const router = Router();
  const folder = dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'));
  router.get('/docs/swagger-initializer.js', (_request, response) => {
    response
      .type('text/javascript')
      .send(
        `window.onload = () => { window.ui = SwaggerUIBundle({ url: '/api/openapi.json', dom_id: '#swagger-ui' }); };`,
      );
  });
  router.use('/docs', express.static(folder));
  return router;
}
