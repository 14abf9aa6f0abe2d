import { endingOf, formatOf, WRITTEN_ENDINGS } from '@blunt-hem/core/formats/formats';
import { type OperationName, operationNamed, type ParamsOf } from '@blunt-hem/core/operations/catalogue';
import { type Parameter, parameterOf } from '@blunt-hem/core/parameters';
import { type AskedOf, paramsOf, type QuestionName } from '@blunt-hem/core/questions/index';
import { MOST_TILES } from '@blunt-hem/core/surface/tiles';
import { InvalidArgumentError, Option } from 'commander';

/** An option for one parameter of an operation: its words, choices, bounds and default are those of the catalogue. */
export const optionOf = <N extends OperationName>(
  operation: N,
  name: keyof ParamsOf<N> & string,
  words?: string,
): Option => optionFor(parameterOf(operationNamed(operation).params, name), words);

/** The same for one parameter of a question. */
export const askedOption = <N extends QuestionName>(
  question: N,
  name: keyof AskedOf<N> & string,
  words?: string,
): Option => optionFor(parameterOf(paramsOf(question), name), words);

/** What one parameter of a question can be. */
export const choicesOf = <N extends QuestionName>(question: N, name: keyof AskedOf<N> & string): string[] => [
  ...parameterOf(paramsOf(question), name).choices,
];

/** @param words  where the catalogue says it otherwise than one needs it here */
function optionFor(parameter: Parameter, words = inWords(parameter)): Option {
  const flag = `--${parameter.name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;
  if (parameter.type === 'flag') return new Option(flag, words);
  const isNumber = parameter.type === 'number';
  const option = new Option(`${flag} <${isNumber ? 'n' : 'choice'}>`, words);
  if (parameter.fallback !== undefined) option.default(parameter.fallback);
  return isNumber
    ? option.argParser((word) => numberWithin(word, parameter))
    : option.choices(parameter.choices);
}

const inWords = ({ about, unit }: Parameter): string => (unit ? `${about}, in ${unit}` : about);

function numberWithin(word: string, { whole, positive, least, most }: Parameter): number {
  const value = Number(word);
  if (word.trim() === '' || !Number.isFinite(value)) throw new InvalidArgumentError('It must be a number.');
  if (whole && !Number.isInteger(value)) throw new InvalidArgumentError('It must be a whole number.');
  if (positive && value <= 0) throw new InvalidArgumentError('It must be greater than 0.');
  if (least !== undefined && value < least) throw new InvalidArgumentError(`It must be at least ${least}.`);
  if (most !== undefined && value > most) throw new InvalidArgumentError(`It must be at most ${most}.`);
  return value;
}

const WRITTEN = WRITTEN_ENDINGS.map((ending) => `.${ending}`).join(' or ');

/** Where the result goes; the ending says in which format. */
export const outOption = (): Option =>
  new Option('--out <file>', `where the result goes, a name ending in ${WRITTEN}`)
    .makeOptionMandatory()
    .argParser((word) => {
      if (!formatOf(word)?.write) throw new InvalidArgumentError(`It must end in ${WRITTEN}.`);
      return word;
    });

/** Where a picture goes. */
export const pictureOutOption = (): Option =>
  new Option('--out <file>', 'where the picture goes, a name ending in .png')
    .makeOptionMandatory()
    .argParser((word) => {
      if (endingOf(word) !== 'png') throw new InvalidArgumentError('It must end in .png.');
      return word;
    });

/** Where edges go, as `--seams` reads them. */
export const seamsOutOption = (what = '{"edges": [[a, b], …]}'): Option =>
  new Option('--out <file>', `where the edges go, a name ending in .json: ${what}`)
    .makeOptionMandatory()
    .argParser((word) => {
      if (!/\.json$/i.test(word)) throw new InvalidArgumentError('It must end in .json.');
      return word;
    });

/** Asked for where the result is to take the place of the model it was made from. */
export const overOption = (): Option =>
  new Option('--over', 'let --out name the model itself, which is then written over');

/** Vertices by number, with commas between. */
export function vertexList(word: string): number[] {
  const list = word.split(',').map((each) => (each.trim() === '' ? Number.NaN : Number(each)));
  if (list.some((v) => !Number.isInteger(v) || v < 0))
    throw new InvalidArgumentError('It must be numbers of vertices with commas between, counted from 0.');
  return list;
}

/** A direction: an axis by its name, with a sign before it or not, or three numbers. */
export function direction(word: string): [number, number, number] {
  const [, sign, axis] = /^([+-]?)([xyz])$/i.exec(word.trim()) ?? [];
  if (axis === undefined && !word.includes(','))
    throw new InvalidArgumentError('It must be x, y, z, -x, -y, -z or three numbers with commas between.');
  if (axis === undefined) return threeNumbers(word);
  const length = sign === '-' ? -1 : 1;
  const along = (name: string) => (name === axis.toLowerCase() ? length : 0);
  return [along('x'), along('y'), along('z')];
}

/** A gap on a texture. */
export function pixels(word: string): number {
  const value = Number(word);
  if (word.trim() === '' || !(value >= 0 && value <= 512))
    throw new InvalidArgumentError('It must be a number from 0 to 512.');
  return value;
}

/** How many tiles. */
export const tileCount = (word: string): number => countUpTo(word, MOST_TILES);

/** How many threads. */
export const threadCount = (word: string): number => countUpTo(word, 64);

function countUpTo(word: string, most: number): number {
  const value = Number(word);
  if (!(Number.isInteger(value) && value >= 1 && value <= most))
    throw new InvalidArgumentError(`It must be a whole number from 1 to ${most}.`);
  return value;
}

/** The size of a texture: “2048”, or “4096x2048” where it is not square. */
export interface TextureSize {
  readonly width: number;
  readonly height: number;
}

export function textureSize(word: string): TextureSize {
  const [, width, height = width] = /^(\d+)(?:[x×](\d+))?$/.exec(word.trim()) ?? [];
  const size = { width: Number(width), height: Number(height) };
  if (!Object.values(size).every((side) => side >= 16 && side <= 65_536))
    throw new InvalidArgumentError('It must be a number of pixels from 16 to 65536, or two: 4096x2048.');
  return size;
}

/** A part of the size of a model. */
export function partOfSize(word: string): number {
  const part = word.trim() === '' ? Number.NaN : Number(word);
  if (!(part > 0 && part <= 1)) throw new InvalidArgumentError('It must be a number above 0, up to 1.');
  return part;
}

/** Three numbers with commas between: a place or a direction. */
export function threeNumbers(word: string): [number, number, number] {
  const [a, b, c] = numbersIn(word, 3, 'three');
  return [a, b, c];
}

/** Four numbers with commas between: a box. */
export function fourNumbers(word: string): [number, number, number, number] {
  const [a, b, c, d] = numbersIn(word, 4, 'four');
  return [a, b, c, d];
}

function numbersIn(word: string, count: number, inWords: string): number[] {
  const list = word.split(',').map((each) => (each.trim() === '' ? Number.NaN : Number(each)));
  if (list.length !== count || !list.every(Number.isFinite))
    throw new InvalidArgumentError(`It must be ${inWords} numbers with commas between.`);
  return list;
}
