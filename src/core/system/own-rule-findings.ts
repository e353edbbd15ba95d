import type { Finding } from '../findings';
import { standsAlone } from '../patterns';
import type { Edit } from '../survey';
import type { System } from './system';

/** Rules of somebody's own that are left out, and those whose thing is gone. */
export const ownRuleFindings = ({ ownRuleFaults, readings }: System): Finding<Edit>[] =>
  ownRuleFaults.map(({ rule: { id, name }, problem, orphan }): Finding<Edit> => {
    const about = name.split('.')[1] ?? id;
    const instead =
      orphan || standsAlone(name) ? 'It is left out.' : 'It is left out, and what is generated stands in its place.';
    return {
      id: `own-rule ${id}`,
      kind: 'rule of your own that does not work',
      severity: 'check',
      subject: readings.some(({ signal }) => signal.id === about) ? about : id,
      says: `Your own rule ${name} does not work. ${problem} ${instead}`,
      figures: [],
      advice: orphan
        ? 'Undo what it was about away, or delete the rule.'
        : 'Undo what it asks for away, change it, or put back what is generated.',
      fixes: [
        {
          says: orphan || standsAlone(name) ? 'Delete the rule' : 'Put back what is generated',
          edit: { do: 'own rules', put: [], drop: [name], about: name },
        },
      ],
    };
  });
