import type { Finding } from '../findings';
import { CURRENT, sensorKind, TRACK_POWERS } from '../kinds';
import type { Edit, LayoutDocument } from '../survey';
import { districtFindings } from './district-findings';
import type { Partition } from './partition';
import { polarityFindings } from './polarity-findings';

/** What is wrong with the current in the track: rails that meet the other way round, gaps in the wrong rail, stretches that nothing feeds. */
export function powerFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const { inTrack } = TRACK_POWERS[document.power];
  return [
    ...polarityFindings(document, partition),
    ...(inTrack ? districtFindings(document, partition) : []),
    ...(inTrack ? [] : needsCurrent(document)),
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
