import { topologyOf } from '../document/document.ts';
import { about, choice, number, otherwise, record } from '../params.ts';
import { edgesByRule as edgesWhere, RULES, type Rule } from '../seams/fromRules.ts';
import { selector } from './selector.ts';

/** Where only words differ from rule to rule. */
const WORDS: Readonly<Record<Exclude<Rule, 'crease'>, string>> = {
  patch: 'edges round patches',
  material: 'edges between materials',
  smoothing: 'edges between smoothing groups',
  part: 'edges between parts',
  uv: 'edges where UVs of the file break',
};

/** Edges where a rule says that a seam should be. */
export const edgesByRule = selector({
  of: 'edges',
  key: 'rule',
  params: record({
    rule: about('where seams follow', choice(...RULES)),
    angle: about('of creases, by how much the surface turns at least', otherwise(number(1, 180), 60), '°'),
  }),
  words: ({ rule, angle }) => (rule === 'crease' ? `creases of ${angle}° or more` : WORDS[rule]),
  resolve: (document, { rule, angle }) =>
    edgesWhere(document, topologyOf(document.model).connectivity, rule, (angle * Math.PI) / 180),
});
