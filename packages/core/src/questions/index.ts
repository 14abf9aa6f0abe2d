import type Joi from 'joi';
import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Given } from '../params.ts';
import { ambientOcclusion } from './ambientOcclusion.ts';
import { bake } from './bake.ts';
import { bestCut } from './bestCut.ts';
import { brushed } from './brushed.ts';
import { changedPick } from './changedPick.ts';
import { chosen } from './chosen.ts';
import { copies } from './copies.ts';
import { countFinding } from './countFinding.ts';
import { coverage } from './coverage.ts';
import { darts } from './darts.ts';
import { direction } from './direction.ts';
import { edgeLoop } from './edgeLoop.ts';
import { ellipses } from './ellipses.ts';
import { examination } from './examination.ts';
import { exportFile } from './exportFile.ts';
import { imagesByPlace } from './imagesByPlace.ts';
import { inBall } from './inBall.ts';
import { inBoardBox } from './inBoardBox.ts';
import { inBox } from './inBox.ts';
import { inspection } from './inspection.ts';
import { landing } from './landing.ts';
import { losses } from './losses.ts';
import { movedPin } from './movedPin.ts';
import { neighbours } from './neighbours.ts';
import { pickBoard } from './pickBoard.ts';
import { pickModel } from './pickModel.ts';
import { picture } from './picture.ts';
import { projection } from './projection.ts';
import { proposal } from './proposal.ts';
import { pulledPoints } from './pulledPoints.ts';
import type { Question, QuestionContext } from './question.ts';
import { remedyOutcome } from './remedyOutcome.ts';
import { route } from './route.ts';
import { seamsShown } from './seamsShown.ts';
import { shiftedSeam } from './shiftedSeam.ts';
import { straightenedSeam } from './straightenedSeam.ts';
import { symmetry } from './symmetry.ts';
import { visibility } from './visibility.ts';
import { wastefulShells } from './wastefulShells.ts';
import { weldable } from './weldable.ts';
import { widenedDart } from './widenedDart.ts';

/** Every question. */
export const QUESTIONS = [
  pickModel,
  pickBoard,
  edgeLoop,
  inBox,
  inBall,
  brushed,
  changedPick,
  chosen,
  inBoardBox,
  landing,
  neighbours,
  bestCut,
  copies,
  darts,
  projection,
  proposal,
  symmetry,
  imagesByPlace,
  route,
  visibility,
  inspection,
  remedyOutcome,
  seamsShown,
  wastefulShells,
  coverage,
  examination,
  countFinding,
  picture,
  exportFile,
  bake,
  ambientOcclusion,
  shiftedSeam,
  straightenedSeam,
  widenedDart,
  weldable,
  losses,
  movedPin,
  pulledPoints,
  ellipses,
  direction,
] as const;

type AnyQuestion = (typeof QUESTIONS)[number];
export type QuestionName = AnyQuestion['name'];
type Named<N extends QuestionName> = Extract<AnyQuestion, { readonly name: N }>;
/** What a caller gives with a question, and gets. */
export type AskedOf<N extends QuestionName> = Given<Named<N>['params']>;
export type AnswerOf<N extends QuestionName> = Awaited<ReturnType<Named<N>['answer']>>;

// biome-ignore lint/suspicious/noExplicitAny: each of them checks its own parameters
const byName = new Map<string, Question<string, any, any, any>>(QUESTIONS.map((each) => [each.name, each]));

/** What a question takes. */
export const paramsOf = (name: QuestionName): Joi.Schema =>
  (byName.get(name) as { readonly params: Joi.Schema }).params;

/** Whether a question may be asked several times at once. */
export const isSeveral = (name: QuestionName): boolean => byName.get(name)?.several === true;

/** Whether a question is asked while a hand moves. */
export const isByHand = (name: QuestionName): boolean => byName.get(name)?.byHand === true;

/** Whether a question gives way to everything else. */
export const isBackground = (name: QuestionName): boolean => byName.get(name)?.background === true;

/** Whether a question is ended by the beginning of any act. */
export const isIdle = (name: QuestionName): boolean => byName.get(name)?.idle === true;

/** Whether the answer to a question is of no more use after a change. */
export const lapses = (name: QuestionName, patches: readonly Delta[]): boolean =>
  patches.some((delta) => byName.get(name)?.lapses?.(delta) ?? true);

/** @throws HemError when the parameters are wrong or it cannot be answered; StoppedError */
export async function answerQuestion<N extends QuestionName>(
  document: HemDocument,
  name: N,
  params: AskedOf<N>,
  context: QuestionContext,
): Promise<AnswerOf<N>> {
  const asked = byName.get(name);
  if (!asked) throw new HemError('no-such-question', `There is no question “${name}”.`);
  const { value, error } = asked.params.validate(params ?? {}, { convert: false });
  if (error) throw new HemError('wrong-parameters', `${name}: ${error.message}.`);
  return asked.answer(document, value, context);
}
