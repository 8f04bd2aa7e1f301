export {
  decimalsOf,
  duration,
  figure,
  nameOf,
  number,
  percent,
  signed,
  signedFigure,
  unitWord,
} from './figures.ts';
export {
  boundText,
  CATEGORY_LABEL,
  DECISION_LABEL,
  READINESS_PART_LABEL,
  MODE_LABEL,
  OCCASION_LABEL,
  kindText,
  optionLabel,
  REGION_LABEL,
  SIDE_LABEL,
  SIDE_MARK,
  STATE_LABEL,
  WEEKDAY_LABEL,
  withSide,
} from './labels.ts';
export {
  amountText,
  circuitText,
  doseSentence,
  lineAmount,
  lineName,
  setsText,
  setupText,
  sideText,
} from './doseText.ts';
export { costText } from './costText.ts';
export { needText } from './needText.ts';
export { sourceText } from './sourceText.ts';
export { priorityText } from './priorityText.ts';
export { infeasibleText, reasonText, ruleText } from './reasonText.ts';
export { itemChange } from './itemChange.ts';
export { dayRuleText } from './dayRuleText.ts';
