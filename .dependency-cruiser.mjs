const not = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });

/** The arrows of the tree: core ← render ← web; core ← server; demo, bench and e2e may use all; never back. */
export default {
  forbidden: [
    not('no-cycles', 'A cycle has no bottom to start reading from.', {}, { circular: true }),
    not(
      'core-is-pure',
      'Core computes: no interface, server, database, files or network.',
      { path: '^core/src', pathNot: '\\.test\\.ts$' },
      { path: '^(render|web|server|demo|e2e|bench|scripts)/|node_modules/(react|@nestjs|sequelize|express|pg)/' },
    ),
    not(
      'core-has-no-node',
      'Core runs the same in a page, a worker and Node.',
      { path: '^core/src', pathNot: '\\.test\\.ts$' },
      { dependencyTypes: ['core'] },
    ),
    not(
      'bottom-of-core',
      'document and optics know only what is below them.',
      { path: '^core/src/(document|optics)/', pathNot: '\\.test\\.ts$' },
      { path: '^core/src/', pathNot: '^core/src/(document|optics)/' },
    ),
    not(
      'path-pace-gaze-apart',
      'move composes them; they do not know each other.',
      { path: '^core/src/(path|pace|gaze)/', pathNot: '\\.test\\.ts$' },
      { path: '^core/src/(path|pace|gaze|move|survey|reel|format)/', pathNot: '^core/src/$1/' },
    ),
    not(
      'reel-reads-documents',
      'The reel reads rates and samples only.',
      { path: '^core/src/reel/', pathNot: '\\.test\\.ts$' },
      { path: '^core/src/(path|pace|gaze|survey|format)/' },
    ),
    not(
      'format-is-a-border',
      'Formats turn bytes into models; they know no moves or surveys.',
      { path: '^core/src/format/', pathNot: '\\.test\\.ts$' },
      { path: '^core/src/(path|pace|gaze|move|survey|reel)/' },
    ),
    not(
      'render-knows-core-only',
      'Pictures are made from samples and models.',
      { path: '^render/src' },
      { path: '^(web|server|demo|e2e|bench)/' },
    ),
    not(
      'page-draws-no-3d',
      'The page asks the worker for pictures; three.js stays out of it.',
      { path: '^web/src', pathNot: '^web/src/worker/' },
      { path: 'node_modules/(three|mediabunny)/' },
    ),
    not(
      'render-in-workers',
      'Only workers load the renderer; the page knows its types.',
      { path: '^web/src', pathNot: '^web/src/worker/' },
      { path: '^render/src', dependencyTypesNot: ['type-only'] },
    ),
    not(
      'web-and-server-apart',
      'They meet in core/document and in the API.',
      { path: '^web/src' },
      { path: '^(server|demo|e2e|bench)/' },
    ),
    not(
      'server-draws-nothing',
      'The server keeps; it neither renders nor seeds.',
      { path: '^server/src' },
      { path: '^(web|render|demo|e2e|bench)/' },
    ),
    not(
      'stages-apart',
      'A stage knows no other stage; what they share lies in stage/shared and in the desk.',
      { path: '^web/src/stage/([^/]+)/', pathNot: '^web/src/stage/shared/' },
      { path: '^web/src/stage/', pathNot: '^web/src/stage/(shared|$1)/' },
    ),
    not(
      'shared-knows-no-stage',
      'What all stages share belongs to none.',
      { path: '^web/src/stage/shared/' },
      { path: '^web/src/stage/', pathNot: '^web/src/stage/shared/' },
    ),
    not(
      'app-is-the-roof',
      'Nothing imports the roof.',
      { path: '^web/src', pathNot: '^web/src/(app/|testing/)|\\.test\\.tsx?$' },
      { path: '^web/src/app/' },
    ),
    not(
      'desk-is-below',
      'The desk knows data and controls; surfaces, sites and stages stand on it.',
      { path: '^web/src/desk/' },
      { path: '^web/src/(app|stage|site|picture|plan|strips|client|worker)/' },
    ),
    not(
      'picture-knows-no-site',
      'A site tells the picture what to show; the picture never asks.',
      { path: '^web/src/picture/' },
      { path: '^web/src/(site|stage|app)/' },
    ),
    not(
      'kit-is-at-the-bottom',
      'Controls know nothing of what they control.',
      { path: '^web/src/kit/' },
      { path: '^web/src/(app|data|desk|stage|site|picture|plan|strips|client)/' },
    ),
    not(
      'client-page-is-small',
      'What a client opens must not pull in the studio.',
      { path: '^web/src/client/' },
      { path: '^web/src/(stage|plan|strips|picture|worker)/' },
    ),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/|vite\\.config' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@eskovan/source', 'import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
    tsConfig: { fileName: 'tsconfig.base.json' },
  },
};
