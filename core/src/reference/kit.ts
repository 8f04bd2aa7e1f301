import type { Drill } from './types.ts';

type Kit = Pick<Drill, 'equipment' | 'equipmentAny'>;

/** Every kit word that a drill needs or can use in place of another. */
export function kitWordsOf(drill: Kit): string[] {
  return [...drill.equipment, ...(drill.equipmentAny ?? []).flat()];
}

/** The words of a drill's kit that are used where this kit is at hand: of each group the first that is there. */
export function kitUsed(drill: Kit, kit: readonly string[]): string[] {
  const chosen = (drill.equipmentAny ?? []).map(
    (group) => group.find((word) => kit.includes(word)) ?? group[0] ?? '',
  );
  return [...drill.equipment, ...chosen];
}

/** The kit in words: "pull up bar, box or long band"; empty for a drill without kit. */
export function kitText(drill: Kit): string {
  return [...drill.equipment, ...(drill.equipmentAny ?? []).map((group) => group.join(' or '))]
    .join(', ')
    .replaceAll('-', ' ');
}

/** What of a drill's kit is not there, in the words of `kitText` for a group; null when it can be done. */
export function missingKit(drill: Kit, kit: readonly string[]): string | null {
  const one = drill.equipment.find((word) => !kit.includes(word));
  if (one !== undefined) return one;
  const group = drill.equipmentAny?.find((words) => !words.some((word) => kit.includes(word)));
  return group ? group.join(' or ') : null;
}
