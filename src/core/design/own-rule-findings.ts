import type { Finding } from '../findings';
import type { Edit } from '../survey';
import type { System } from '../system';

/** Rules of somebody's own that are left out. */
export const ownRuleFindings = ({ ownRuleFaults, readings }: System): Finding<Edit>[] =>
  ownRuleFaults.map(({ rule: { id, name }, problem }): Finding<Edit> => {
    const [, about = id] = name.split('.');
    const known = readings.some(({ signal }) => signal.id === about) ? about : id;
    return {
      id: `own-rule ${id}`,
      kind: 'rule of your own that does not work',
      severity: 'check',
      subject: known,
      says: `Your own rule ${name} is left out, and what is generated stands in its place. ${problem}`,
      figures: [],
      advice: 'Undo what it asks for away, change it, or put back what is generated.',
      fixes: [{ says: 'Put back what is generated', edit: { do: 'own rules', put: [], drop: [name], about: name } }],
    };
  });
