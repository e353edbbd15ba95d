import type { Finding } from '../findings';
import { CURRENT, SENSOR_KIND_IDS, sensorKind, TRACK_POWERS } from '../kinds';
import type { Edit, LayoutDocument } from '../survey';
import { districtFindings } from './district-findings';
import type { Partition } from './partition';
import { polarityFindings } from './polarity-findings';

/** What is wrong with the current in the track: rails that meet the other way round, gaps in the wrong rail, stretches that nothing feeds. */
export function powerFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const { inTrack, twoPoles } = TRACK_POWERS[document.power];
  return [
    ...polarityFindings(document, partition),
    ...(inTrack ? districtFindings(document, partition) : []),
    ...(inTrack ? [] : needsCurrent(document)),
    ...(twoPoles ? joinsPoles(document) : []),
  ];
}

/** Sensors that wheelsets of metal join rails for, where the rails are the two poles. */
function joinsPoles({ sensors, power }: LayoutDocument): Finding<Edit>[] {
  const joining = sensors.filter(({ kind }) => sensorKind(kind).joinsRails);
  if (joining.length === 0) return [];
  const instead = SENSOR_KIND_IDS.find((id) => sensorKind(id).reachMm === 'section' && !sensorKind(id).joinsRails);
  const names = joining.length === 1 ? joining[0]!.name : `${joining.length} isolated rails`;
  return [
    {
      id: 'joins-poles',
      kind: 'detector that joins the two poles',
      severity: 'unsafe',
      subject: joining[0]!.id,
      says: `${names} notice${joining.length === 1 ? 's' : ''} a wheelset that joins the rails. On ${TRACK_POWERS[power].says} these are the two poles: such a wheelset is a short circuit, and one that is insulated, as it has to be, is not noticed.`,
      figures: [],
      advice:
        'An isolated rail works where both running rails are one pole: with a centre rail, or without power in the track. Rehearse and Prove take it as if it noticed every wheelset of metal.',
      fixes:
        instead === undefined
          ? []
          : [
              {
                says: `${joining.length === 1 ? `Make it a ${sensorKind(instead).title.toLowerCase()}` : `Make all of them ${sensorKind(instead).title.toLowerCase()}s`}`,
                edit: {
                  do: 'one after another',
                  says: `Make ${names} ${sensorKind(instead).title.toLowerCase()}${joining.length === 1 ? '' : 's'}`,
                  edits: joining.map(({ id }) => ({ do: 'change sensor', id, change: { kind: instead } })),
                },
              },
            ],
    },
  ];
}

/** Sensors that notice current, where there is none in the track. */
function needsCurrent({ sensors, power }: LayoutDocument): Finding<Edit>[] {
  const blind = sensors.filter(({ kind }) => sensorKind(kind).notices === CURRENT);
  if (blind.length === 0) return [];
  return [
    {
      id: 'no-current',
      kind: 'detector that needs current in the track',
      severity: 'unsafe',
      subject: blind[0]!.id,
      says: `Trains run on ${TRACK_POWERS[power].says}: ${blind.length === 1 ? blind[0]!.name : `${blind.length} detectors`} will never notice any.`,
      figures: [],
      advice: 'Choose sensors that need no current in the track: contacts, light, or magnets.',
      fixes: [],
    },
  ];
}
