/** A call of an example as code, in the languages that programs are most often written in. */
const quoted = (text) => JSON.stringify(text);
const partsOf = (request) => {
  const headers = Object.entries(request.get('headers')?.toJS() ?? {});
  const body = request.get('body');
  return {
    url: request.get('url'),
    method: request.get('method').toUpperCase(),
    headers: [['authorization', 'Bearer listo_…'], ...headers.filter(([name]) => name !== 'authorization')],
    body: body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body.toJS?.() ?? body),
  };
};
const toJavaScript = (request) => {
  const { url, method, headers, body } = partsOf(request);
  return [
    `const response = await fetch(${quoted(url)}, {`,
    `  method: ${quoted(method)},`,
    `  headers: ${JSON.stringify(Object.fromEntries(headers))},`,
    ...(body === null ? [] : [`  body: ${quoted(body)},`]),
    '});',
    'console.log(response.status, await response.json());',
  ].join('\n');
};
const toPython = (request) => {
  const { url, method, headers, body } = partsOf(request);
  return [
    'import json, urllib.request',
    '',
    'request = urllib.request.Request(',
    `    ${quoted(url)},`,
    `    method=${quoted(method)},`,
    `    headers=${JSON.stringify(Object.fromEntries(headers))},`,
    ...(body === null ? [] : [`    data=${quoted(body)}.encode(),`]),
    ')',
    'print(json.load(urllib.request.urlopen(request)))',
  ].join('\n');
};

globalThis.SwaggerUIBundle({
  url: '/api/v1/openapi.json',
  dom_id: '#calls',
  deepLinking: true,
  docExpansion: 'none',
  filter: true,
  tryItOutEnabled: true,
  persistAuthorization: false,
  validatorUrl: null,
  requestSnippetsEnabled: true,
  requestSnippets: {
    defaultExpanded: true,
    generators: {
      curl_bash: { title: 'Shell (curl)', syntax: 'bash' },
      javascript_fetch: { title: 'JavaScript', syntax: 'javascript' },
      python: { title: 'Python', syntax: 'python' },
    },
  },
  plugins: [
    () => ({
      fn: {
        requestSnippetGenerator_javascript_fetch: toJavaScript,
        requestSnippetGenerator_python: toPython,
      },
    }),
  ],
});
