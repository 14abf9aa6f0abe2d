import { topologyOf } from '../document/document.ts';
import { choice, number, otherwise, record } from '../params.ts';
import { edgesByRule, RULES } from '../seams/fromRules.ts';
import { question } from './question.ts';

/** Edges where a rule says that a seam should be, and is none yet. */
export const ruleEdges = question({
  name: 'rule-edges',
  params: record({
    rule: choice(...RULES),
    /** Degrees; from here on a crease counts. */
    angle: otherwise(number(1, 180), 60),
  }),
  answer: (document, { rule, angle }): number[] =>
    edgesByRule(document, topologyOf(document.model).links, rule, (angle * Math.PI) / 180).filter(
      (e) => !document.seams[e],
    ),
});
