import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { program } from '../packages/cli/src/program.ts';
import { CHECKS } from '../packages/core/src/health/examine.ts';
import { INSPECTIONS } from '../packages/core/src/inspect/inspect.ts';
import { OPERATIONS } from '../packages/core/src/operations/catalogue.ts';
import { STAGES } from '../packages/core/src/operations/operation.ts';
import { type Parameter, parametersOf } from '../packages/core/src/parameters.ts';
import { QUESTIONS } from '../packages/core/src/questions/index.ts';
import { SELECTORS } from '../packages/core/src/selectors/index.ts';

/**
 * Writes the tables of the docs that follow from lists in the code, between `<!-- name -->` and `<!-- /name -->`: `npm run docs`. A test
 * (`packages/docs.test.ts`) says when they are out of date.
 */

const root = fileURLToPath(new URL('..', import.meta.url));

const capital = (text: string): string => text[0].toUpperCase() + text.slice(1);
const SEVERITIES = { spoils: 'spoils the UVs', hint: 'worth knowing' } as const;
const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  [head, head.map(() => '---'), ...rows]
    .map((cells) => `| ${cells.map((cell) => cell.replaceAll('|', '\\|')).join(' | ')} |`)
    .join('\n');

const checks = (): string =>
  table(
    ['finding', 'how it is found', 'how bad', 'what it does', 'repair'],
    CHECKS.map(({ thing, when, severity, effect, repair }) => [
      capital(thing[1]),
      when,
      SEVERITIES[severity],
      effect,
      repair ? `${repair.label}${repair.safe ? ', **safe**' : ''}` : 'by hand',
    ]),
  );

const findings = (): string =>
  table(
    ['finding', 'when', 'how bad', 'what it does'],
    INSPECTIONS.map(({ thing, when, severity, effect }) => [
      capital(thing[1]),
      when,
      SEVERITIES[severity],
      effect,
    ]),
  );

const commands = (): string =>
  program(() => undefined)
    .commands.map((command) => {
      const options = command.options.map(({ flags, description, argChoices, defaultValue, mandatory }) => [
        `\`${flags}\`${mandatory ? ', needed' : ''}`,
        description,
        argChoices?.map((choice) => `\`${choice}\``).join(', ') ?? '',
        defaultValue === undefined ? '' : `\`${defaultValue}\``,
      ]);
      const usage = `\`hem ${command.name()} <model>\` ${command.description()}.`;
      return `## ${command.name()}\n\n${usage}${
        options.length > 0 ? `\n\n${table(['option', '', 'choices', 'default'], options)}` : ''
      }`;
    })
    .join('\n\n');

/** What a parameter may be: “1 to 180 °”. */
function valuesOf({ type, unit, least, most, positive, whole, choices }: Parameter): string {
  if (choices.length > 0) return choices.map((choice) => `\`${choice}\``).join(', ');
  if (type !== 'number') return { flag: 'yes or no', text: 'words', list: 'list' }[type as string] ?? type;
  const from = least ?? (positive ? 'above 0' : undefined);
  const bounds =
    most !== undefined ? `${from ?? 'up'} to ${most}` : least !== undefined ? `from ${least}` : (from ?? '');
  return [whole ? 'whole,' : '', bounds || 'any number', unit ?? ''].filter(Boolean).join(' ');
}

const parameterTable = (params: Parameters<typeof parametersOf>[0]): string => {
  const rows = parametersOf(params).map((parameter) => [
    `\`${parameter.name}\`${parameter.needed ? ', needed' : ''}`,
    parameter.about,
    valuesOf(parameter),
    parameter.fallback === undefined ? '' : `\`${JSON.stringify(parameter.fallback)}\``,
  ]);
  return rows.length > 0 ? table(['parameter', '', 'values', 'default'], rows) : 'No parameters.';
};

const operations = (): string =>
  STAGES.map((stage) => {
    const own = (OPERATIONS as readonly (typeof OPERATIONS)[number][]).filter((each) => each.stage === stage);
    const told = own.map(({ name, params }) => `### ${name}\n\n${parameterTable(params)}`);
    return own.length > 0 ? `## ${capital(stage)}\n\n${told.join('\n\n')}` : '';
  })
    .filter(Boolean)
    .join('\n\n');

const selectors = (): string =>
  SELECTORS.map(
    ({ of, key, params }) => `### ${capital(of)} by \`${key}\`\n\n${parameterTable(params)}`,
  ).join('\n\n');

/** What is generated, by file and name. */
const PARTS: readonly (readonly [file: string, name: string, text: () => string])[] = [
  ['docs/health.md', 'checks', checks],
  ['docs/measures.md', 'findings', findings],
  ['docs/cli.md', 'commands', commands],
  ['docs/operations.md', 'operations', operations],
  ['docs/operations.md', 'selectors', selectors],
];

/** Numbers that operations, questions and selectors take, by the name of those and their own: what forms of the app go by. */
function parameters(): string {
  const named = [
    ...[...OPERATIONS, ...QUESTIONS].map(({ name, params }) => [name, params] as const),
    ...SELECTORS.map(({ of, key, params }) => [`${of} by ${key}`, params] as const),
  ];
  const byName = named.flatMap(([name, params]) => {
    const own = parametersOf(params).filter(({ type }) => type === 'number');
    const told = own.map(({ name: of, about, unit, least, most, positive }) => [
      of,
      { about, unit, least, most, positive },
    ]);
    return told.length > 0 ? [[name, Object.fromEntries(told)]] : [];
  });
  return JSON.stringify(Object.fromEntries(byName));
}

/** As the formatter writes it, so that the lint test and this one ask for the same. */
const formatted = (file: string, text: string): string =>
  execFileSync(join(root, 'node_modules/.bin/biome'), ['format', `--stdin-file-path=${file}`], {
    cwd: root,
    input: text,
    encoding: 'utf8',
    stdio: ['pipe', 'pipe', 'ignore'],
  });

/** A file of the docs as it is, and as it would be written. */
export function generatedDocs(): { readonly file: string; readonly now: string; readonly wanted: string }[] {
  const data = 'packages/app/src/bench/parameters.json';
  const docs = [...new Set(PARTS.map(([file]) => file))].map((file) => {
    const now = readFileSync(join(root, file), 'utf8');
    const parts = PARTS.filter(([own]) => own === file);
    return { file, now, wanted: formatted(file, parts.reduce(withPart, now)) };
  });
  const written = {
    file: data,
    now: readFileSync(join(root, data), 'utf8'),
    wanted: formatted(data, parameters()),
  };
  return [...docs, written];
}

function withPart(doc: string, [file, name, text]: (typeof PARTS)[number]): string {
  const [begin, end] = [`<!-- ${name} -->`, `<!-- /${name} -->`];
  const [from, to] = [doc.indexOf(begin), doc.indexOf(end)];
  if (from < 0 || to < from) throw new Error(`${file} has no place for ${name}.`);
  return `${doc.slice(0, from + begin.length)}\n\n${text()}\n\n${doc.slice(to)}`;
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  for (const { file, wanted } of generatedDocs()) writeFileSync(join(root, file), wanted);
