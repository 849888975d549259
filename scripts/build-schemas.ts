/** Compiles the JSON Schemas to plain validator code, so that no page or worker needs `new Function`. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Ajv } from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';
import { build } from 'esbuild';
import {
  BareRequestSchema,
  BeginSchema,
  CarryOutSchema,
  CircuitFileSchema,
  CodeSignInSchema,
  DemoPersonSchema,
  EntrySchema,
  FactSchema,
  GuestSchema,
  HandRequestSchema,
  HelperJoinSchema,
  HelperSchema,
  HelperStandsSchema,
  ImportSchema,
  JobEventSchema,
  JobFileSchema,
  NewJobSchema,
  NewVehicleSchema,
  PanelSetFileSchema,
  PeopleSchema,
  PhotoLineSchema,
  PlanFileSchema,
  RateSchema,
  ReadingsFileSchema,
  RecipeSchema,
  SelfSchema,
  ShopManifestSchema,
  ShopSignatureSchema,
  SignInSchema,
  StockRequestSchema,
  SurveyFileSchema,
  UndoSchema,
  VehicleChangeSchema,
  WaitingFrameSchema,
} from '../core/format/schemas';

const out = new URL('../core/format/generated/', import.meta.url);
const schemas = {
  circuitFile: CircuitFileSchema,
  panelSetFile: PanelSetFileSchema,
  jobFile: JobFileSchema,
  jobEvent: JobEventSchema,
  readingsFile: ReadingsFileSchema,
  newJob: NewJobSchema,
  newVehicle: NewVehicleSchema,
  importRequest: ImportSchema,
  fact: FactSchema,
  bareRequest: BareRequestSchema,
  handRequest: HandRequestSchema,
  rateRequest: RateSchema,
  stockRequest: StockRequestSchema,
  planFile: PlanFileSchema,
  carryOut: CarryOutSchema,
  undo: UndoSchema,
  recipe: RecipeSchema,
  surveyFile: SurveyFileSchema,
  vehicleChange: VehicleChangeSchema,
  photoLine: PhotoLineSchema,
  shopManifest: ShopManifestSchema,
  shopSignature: ShopSignatureSchema,
  waitingFrame: WaitingFrameSchema,
  signIn: SignInSchema,
  codeSignIn: CodeSignInSchema,
  begin: BeginSchema,
  entry: EntrySchema,
  demoPerson: DemoPersonSchema,
  self: SelfSchema,
  people: PeopleSchema,
  guest: GuestSchema,
  helper: HelperSchema,
  helperJoin: HelperJoinSchema,
  helperStands: HelperStandsSchema,
};

mkdirSync(out, { recursive: true });
writeFileSync(
  new URL('compiled.d.ts', out),
  `export interface CompiledError {
  instancePath: string;
  keyword: string;
  params: Record<string, unknown>;
  message?: string;
}
export interface CompiledValidator {
  (data: unknown): boolean;
  errors?: CompiledError[] | null;
}
`,
);
for (const [name, schema] of Object.entries(schemas)) {
  const ajv = new Ajv({
    allErrors: true,
    discriminator: true,
    strict: false,
    code: { source: true, esm: true },
  });
  const { $id: _id, ...plain } = JSON.parse(JSON.stringify(schema)) as Record<string, unknown>;
  const validate = ajv.compile(plain);
  const code = standaloneCode(ajv, validate);
  const bundled = await build({
    stdin: { contents: code, resolveDir: process.cwd(), loader: 'js' },
    bundle: true,
    minify: true,
    format: 'esm',
    platform: 'neutral',
    mainFields: ['main'],
    write: false,
  });
  const text = bundled.outputFiles[0]?.text ?? '';
  writeFileSync(new URL(`${name}.js`, out), text);
  writeFileSync(
    new URL(`${name}.d.ts`, out),
    `import type { CompiledValidator } from './compiled';\ndeclare const validate: CompiledValidator;\nexport default validate;\n`,
  );
}

/** Threads of the server, each as one module that Node runs as it is; packages that are large or native stay outside. */
const THREADS: Readonly<Record<string, readonly string[]>> = {
  /** Reads files. */
  'map.thread': [],
  /** Makes sheets. */
  'sheet.thread': ['pdfkit'],
  /** Holds the threads that make sheets. */
  'sheets.process': ['piscina'],
  /** Makes pictures clean. */
  'picture.thread': ['sharp'],
};
for (const [thread, external] of Object.entries(THREADS)) {
  await build({
    entryPoints: [fileURLToPath(new URL(`../src/workers/${thread}.ts`, import.meta.url))],
    outfile: fileURLToPath(new URL(`${thread}.mjs`, out)),
    alias: { '#core': fileURLToPath(new URL('../core', import.meta.url)) },
    external: [...external],
    bundle: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
  });
}
