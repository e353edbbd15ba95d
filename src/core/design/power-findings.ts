import type { Finding } from '../findings';
import { CURRENT, sensorKind, TRACK_POWERS } from '../kinds';
import type { Scheme } from '../patterns';
import type { Edit } from '../survey';
import { districtFindings } from './district-findings';
import { polarityFindings } from './polarity-findings';

/** What is wrong with the current in the track: rails that meet the other way round, gaps in the wrong rail, stretches that nothing feeds. */
export function powerFindings(scheme: Scheme): Finding<Edit>[] {
  const { twoPoles, inTrack } = TRACK_POWERS[scheme.document.power];
  return [
    ...(twoPoles ? polarityFindings(scheme) : []),
    ...(inTrack ? districtFindings(scheme) : []),
    ...(inTrack ? [] : needsCurrent(scheme)),
  ];
}

/** Sensors that notice current, where there is none in the track. */
function needsCurrent({ document: { sensors, power } }: Scheme): Finding<Edit>[] {
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
